'use client';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { X } from 'lucide-react';
import { ask } from '@/contract/ask';
import { type Device, SHOP } from '@/contract/shop';

const KEY = ['devices'];

const day = (iso: string) =>
  new Date(iso).toLocaleString('en', { day: 'numeric', month: 'short', hour: '2-digit', minute: '2-digit' });

/** One device that may come in. */
function PairedDevice({ device: d, onRemove }: { device: Device; onRemove(): void }) {
  return (
    <li className="flex items-center gap-3 px-4 py-2 text-sm">
      <span className="min-w-0 flex-1">
        <span className="block truncate font-semibold">{d.name}</span>
        <span className="soft block">
          paired {day(d.paired)}, last here {day(d.seen)}
        </span>
      </span>
      <button type="button" className="btn btn-ghost btn-sm" aria-label={`Remove ${d.name}`} onClick={onRemove}>
        <X size={14} aria-hidden /> Remove
      </button>
    </li>
  );
}

/** Tablets and other computers in the workshop: how they are paired, and which are. Shown at the machine itself only. */
export function ShopDevices() {
  const client = useQueryClient();
  const found = useQuery({
    queryKey: KEY,
    queryFn: () => ask(SHOP.devices, {}),
    refetchInterval: 5000,
    retry: false,
  });
  const remove = useMutation({
    mutationFn: (id: string) => ask(SHOP.removeDevice, { id }),
    onSuccess: (left) => client.setQueryData(KEY, left),
  });
  if (found.data === undefined) return null;
  const gate = found.data;
  return (
    <section aria-label="Other devices">
      <h2 className="slab mb-2 text-xl">Other devices</h2>
      {gate === null ? (
        <p className="soft text-sm">
          Only this machine is answered. To use a tablet in the workshop, stop the program and start it with{' '}
          <code>ZG_LISTEN=0.0.0.0:4174</code> set: other devices are then paired with a code that is shown here.
        </p>
      ) : (
        <>
          <div className="panel flex flex-wrap items-baseline gap-x-6 gap-y-1 px-4 py-3">
            <p className="text-sm">
              Open <b className="break-all">{gate.addresses.join(' or ')}</b> on the device and enter
            </p>
            {gate.closed > 0 ? (
              <p role="alert" className="text-sm text-accent">
                Too many wrong codes were tried. A new one is taken in {gate.closed} seconds.
              </p>
            ) : (
              <p className="text-2xl font-semibold tracking-wider" data-testid="pairing-code">
                {gate.code}
              </p>
            )}
          </div>
          {!gate.secure && (
            <p className="soft mt-2 text-[13px] leading-snug">
              The connection is plain http: whoever is on the same network can overhear it. Use it only on a network of
              your own that you trust.
            </p>
          )}
          {gate.devices.length > 0 && (
            <ul className="panel mt-2 divide-y divide-base-300">
              {gate.devices.map((d) => (
                <PairedDevice key={d.id} device={d} onRemove={() => remove.mutate(d.id)} />
              ))}
            </ul>
          )}
          {remove.error && (
            <p role="alert" className="mt-1 text-sm text-accent">
              {remove.error.message}
            </p>
          )}
        </>
      )}
    </section>
  );
}
