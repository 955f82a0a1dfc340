'use client';
import { flatAcross } from '@/core/arrange/kinds/turned/forms';
import { deepenTurned, freshForm } from '@/core/arrange/kinds/turned/fresh';
import type { TurnedForm } from '@/core/arrange/kinds/turned/schema';
import type { LayerOf } from '@/core/doc/layer';
import { clean } from '@/core/units/round';
import { sayLength } from '@/core/units/say';
import { Choice, LengthField, NumberField, Tick } from '../../controls/fields';
import { editKind } from '../actions';
import { ContourFields } from './contour-fields';
import type { FieldsProps, KindFields } from './kind-fields';

const FORMS: [TurnedForm['kind'], string][] = [
  ['cylinder', 'tenon, turned down evenly'],
  ['contour', 'contour along the axis'],
  ['beads', 'beads'],
  ['flat', 'flat'],
  ['flutes', 'flutes'],
  ['knurl', 'knurl'],
];

type Put = (edit: (l: LayerOf<'turned'>) => void) => void;
type Flutes = Extract<TurnedForm, { kind: 'flutes' }>;

/** How many flutes, how they run, and what bit they are shaped for. */
function FluteFields({ form, put }: { form: Flutes; put(f: Flutes): void }) {
  const { section } = form;
  return (
    <>
      <NumberField
        whole
        label="How many"
        value={form.count}
        min={1}
        max={200}
        onChange={(count) => put({ ...form, count })}
        note="evenly round the drum"
      />
      <NumberField
        label="Twist"
        value={form.twist}
        min={-3600}
        max={3600}
        suffix="°"
        onChange={(twist) => put({ ...form, twist })}
        note="how far each goes round over its length"
      />
      <Choice
        label="Shaped for"
        value={section.kind}
        options={[
          ['ball', 'a ball'],
          ['vee', 'a V bit'],
        ]}
        onChange={(kind) =>
          put({ ...form, section: kind === 'ball' ? { kind, radius: 3 } : { kind: 'vee', angle: 90 } })
        }
      />
      {section.kind === 'ball' ? (
        <LengthField
          label="Radius of the ball"
          value={section.radius}
          min={0}
          open
          max={200}
          onChange={(radius) => put({ ...form, section: { kind: 'ball', radius } })}
        />
      ) : (
        <NumberField
          label="Angle of the V"
          value={section.angle}
          min={10}
          max={170}
          suffix="°"
          onChange={(angle) => put({ ...form, section: { kind: 'vee', angle } })}
        />
      )}
    </>
  );
}

/** What a form asks for besides its depth. */
function FormFields({ layer, radius, put }: { layer: LayerOf<'turned'>; radius: number; put: Put }) {
  const { form } = layer.source;
  const change = (f: TurnedForm) => put((l) => (l.source.form = f));
  switch (form.kind) {
    case 'contour':
      return <ContourFields form={form} layer={layer} radius={radius} put={change} />;
    case 'beads':
      return (
        <NumberField
          whole
          label="How many"
          value={form.count}
          min={1}
          max={200}
          onChange={(count) => change({ ...form, count })}
          note={`each ${sayLength(layer.size.x / form.count)} wide`}
        />
      );
    case 'flutes':
      return <FluteFields form={form} put={change} />;
    case 'knurl':
      return (
        <>
          <NumberField
            whole
            label="Grooves each way"
            value={form.count}
            min={1}
            max={200}
            onChange={(count) => change({ ...form, count })}
          />
          <NumberField
            label="Slant from the axis"
            value={form.slant}
            min={5}
            max={80}
            suffix="°"
            onChange={(slant) => change({ ...form, slant })}
          />
          <NumberField
            label="Angle of the V"
            value={form.angle}
            min={10}
            max={170}
            suffix="°"
            onChange={(angle) => change({ ...form, angle })}
          />
        </>
      );
    default:
      return null;
  }
}

/** A form of turned work: which it is, how deep, and its own figures. */
function TurnedFields({ job, layer, change }: FieldsProps<'turned'>) {
  const put: Put = (edit) => change((j) => editKind(j, layer.id, 'turned', edit));
  const R = job.board.thickness;
  const left = R - layer.rise;
  const { form } = layer.source;
  const whole = clean(flatAcross(R, Math.min(layer.rise, R)));
  return (
    <>
      <Choice
        label="Form"
        value={form.kind}
        options={FORMS}
        onChange={(kind) =>
          put((l) => {
            l.source.form = freshForm(kind, job.board);
            l.size.y = kind === 'flat' ? whole : job.board.y;
            deepenTurned(l, l.rise);
          })
        }
      />
      <LengthField
        label="Deepest"
        value={layer.rise}
        min={0}
        open
        max={500}
        onChange={(v) => put((l) => deepenTurned(l, v))}
        note={
          form.kind === 'flat'
            ? `the flat lies ${sayLength(left)} from the axis`
            : `leaves ${sayLength(2 * left)} across where nothing lies beneath it`
        }
      />
      {form.kind === 'flat' && (
        <Tick
          label="As wide as the drum is there"
          value={Math.abs(layer.size.y - whole) < 0.01}
          onChange={(v) => put((l) => (l.size.y = v ? whole : clean(whole / 2)))}
          note="a narrower one is a recess with a flat bottom"
        />
      )}
      <FormFields layer={layer} radius={R} put={put} />
    </>
  );
}

export const turnedFields: KindFields<'turned'> = { Fields: TurnedFields };
