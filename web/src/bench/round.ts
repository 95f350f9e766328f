import { AmbientLight, DirectionalLight, type Object3D, PerspectiveCamera, Scene, WebGLRenderer } from "three";
import { OrbitControls } from "three/examples/jsm/controls/OrbitControls.js";

/** Turned a little from the flat view, rad, so that its thickness is seen. */
const startTurn = 0.45;
const startTilt = 0.5;

/**
 * Shows something in the round in a box, to be turned with mouse, touch or keys; null where there is no WebGL. The
 * answer takes it away again.
 */
export function round(el: HTMLElement, thing: Object3D, radiusMm: number): (() => void) | null {
  let renderer: WebGLRenderer;
  try {
    renderer = new WebGLRenderer({ antialias: true, alpha: true });
  } catch {
    return null;
  }
  const scene = new Scene();
  scene.add(thing, new AmbientLight(0xffffff, 1.1));
  const sun = new DirectionalLight(0xffffff, 2.2);
  sun.position.set(-0.6, 1, 0.8);
  scene.add(sun);
  const camera = new PerspectiveCamera(32, 1, radiusMm / 50, radiusMm * 20);
  camera.position.set(0, radiusMm * 0.3, radiusMm * 2.7);
  thing.rotation.set(startTilt, startTurn, 0);
  const controls = new OrbitControls(camera, renderer.domElement);
  const draw = () => renderer.render(scene, camera);
  controls.addEventListener("change", draw);
  const resize = () => {
    const { clientWidth: w, clientHeight: h } = el;
    renderer.setPixelRatio(window.devicePixelRatio);
    renderer.setSize(w, h);
    camera.aspect = w / Math.max(1, h);
    camera.updateProjectionMatrix();
    draw();
  };
  el.appendChild(renderer.domElement);
  const seen = new ResizeObserver(resize);
  seen.observe(el);
  resize();
  const turn = (e: KeyboardEvent) => {
    const by: Record<string, [number, number, number]> = {
      ArrowLeft: [-0.15, 0, 1],
      ArrowRight: [0.15, 0, 1],
      ArrowUp: [0, -0.15, 1],
      ArrowDown: [0, 0.15, 1],
      "+": [0, 0, 0.88],
      "=": [0, 0, 0.88],
      "-": [0, 0, 1.14],
    };
    const go = by[e.key];
    if (!go) return;
    e.preventDefault();
    e.stopPropagation();
    thing.rotation.y += go[0];
    thing.rotation.x += go[1];
    camera.position.multiplyScalar(go[2]);
    el.dataset.turned = `${(thing.rotation.y - startTurn).toFixed(2)} ${(thing.rotation.x - startTilt).toFixed(2)}`;
    draw();
  };
  el.addEventListener("keydown", turn);
  return () => {
    el.removeEventListener("keydown", turn);
    seen.disconnect();
    controls.dispose();
    renderer.dispose();
    renderer.domElement.remove();
  };
}
