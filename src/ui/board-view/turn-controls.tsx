'use client';
import { useThree } from '@react-three/fiber';
import { useEffect } from 'react';
import { Vector3 } from 'three';
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

/** The view is turned by the pointer, two fingers, and the arrows while it has the focus. */
export function TurnControls({ label }: { label: string }) {
  const { camera, gl, invalidate } = useThree();
  useEffect(() => {
    const { domElement } = gl;
    const controls = new OrbitControls(camera, domElement);
    controls.enableDamping = false;
    controls.addEventListener('change', () => invalidate());
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
      domElement.removeEventListener('keydown', keys);
      controls.dispose();
    };
  }, [camera, gl, invalidate, label]);
  return null;
}
