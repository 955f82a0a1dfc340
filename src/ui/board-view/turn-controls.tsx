'use client';
import { useThree } from '@react-three/fiber';
import { useEffect } from 'react';
import { DirectionalLight, Vector3 } from 'three';
import { OrbitControls } from 'three/examples/jsm/controls/OrbitControls.js';

const UP = new Vector3(0, 0, 1);
/** How far a press of an arrow turns, radians; how much closer + leads; and how near to upright it is looked down, radians. */
const TURN = Math.PI / 18;
const CLOSER = 1.15;
const STEEPEST = 0.05;

/** What a key does to where the eye stands, from what it looks at: arrows lead around it, + and - to and from it. False for other keys. */
function led(eye: Vector3, key: string): boolean {
  const tilt = (by: number) => {
    const to = Math.min(Math.PI - STEEPEST, Math.max(STEEPEST, eye.angleTo(UP) + by));
    eye.applyAxisAngle(new Vector3().crossVectors(UP, eye).normalize(), to - eye.angleTo(UP));
  };
  if (key === 'ArrowLeft') eye.applyAxisAngle(UP, -TURN);
  else if (key === 'ArrowRight') eye.applyAxisAngle(UP, TURN);
  else if (key === 'ArrowUp') tilt(-TURN);
  else if (key === 'ArrowDown') tilt(TURN);
  else if (key === '+' || key === '=') eye.divideScalar(CLOSER);
  else if (key === '-') eye.multiplyScalar(CLOSER);
  else return false;
  return true;
}

/** A light that goes with the eye, so that whatever is turned towards it is lit alike: where it stands beside the eye, as shares of the size. */
export interface EyeLight {
  at: readonly [number, number, number];
  intensity: number;
}

/** Wait after the last movement before what is looked at counts as resting, ms. */
const REST = 350;

interface Props {
  label: string;
  far: number;
  lights: readonly EyeLight[];
  onTurning(on: boolean): void;
}

/** The view is turned by the pointer, two fingers, and the arrows while it has the focus. */
export function TurnControls({ label, far, lights, onTurning }: Props) {
  const { camera, gl, invalidate, scene } = useThree();
  useEffect(() => {
    const made = lights.map(({ at: [x, y, z], intensity }) => {
      const light = new DirectionalLight('#ffffff', intensity);
      light.position.set(x * far, y * far, z * far);
      camera.add(light, light.target);
      return light;
    });
    scene.add(camera);
    invalidate();
    return () => {
      for (const light of made) camera.remove(light, light.target);
      scene.remove(camera);
    };
  }, [camera, scene, invalidate, lights, far]);
  useEffect(() => {
    const { domElement } = gl;
    const controls = new OrbitControls(camera, domElement);
    controls.enableDamping = false;
    let resting: ReturnType<typeof setTimeout> | undefined;
    controls.addEventListener('change', () => {
      onTurning(true);
      clearTimeout(resting);
      resting = setTimeout(() => onTurning(false), REST);
      invalidate();
    });
    const keys = (e: KeyboardEvent) => {
      if (e.ctrlKey || e.metaKey || e.altKey) return;
      const eye = camera.position.clone().sub(controls.target);
      if (!led(eye, e.key)) return;
      e.preventDefault();
      e.stopPropagation();
      camera.position.copy(controls.target).add(eye);
      controls.update();
    };
    domElement.tabIndex = 0;
    domElement.setAttribute('role', 'application');
    domElement.setAttribute('aria-label', label);
    domElement.addEventListener('keydown', keys);
    return () => {
      clearTimeout(resting);
      domElement.removeEventListener('keydown', keys);
      controls.dispose();
    };
  }, [camera, gl, invalidate, label, onTurning]);
  return null;
}
