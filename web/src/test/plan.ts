import type { Piece, PieceAnswer, Plan, Station } from "../api/client";

const stations = (k: number): Station[] => [
  { x: 0, s: 0, e: 0, t: 2, z: "point" },
  { x: 20 * k, s: 0, e: -18, t: 2.4, z: "point" },
  { x: 20 * k, s: 0, e: -18, t: 2.4, z: "blade" },
  { x: 100 * k, s: 0, e: -25, t: 4, z: "blade" },
  { x: 100 * k, s: 0, e: -20, t: 4, z: "ricasso" },
  { x: 114 * k, s: 0, e: -20, t: 4, z: "ricasso" },
  { x: 114 * k, s: -3, e: -15, t: 4, z: "tang" },
  { x: 210 * k, s: -5, e: -12, t: 2.5, z: "tang" },
];

const zones = (k: number) =>
  (
    [
      ["point", 0, 20],
      ["blade", 20, 100],
      ["ricasso", 100, 114],
      ["tang", 114, 210],
    ] as const
  ).map(([zone, a, b]) => ({ zone, fromMm: a * k, toMm: b * k }));

/** A small plan to draw, shaped like the server's. */
export function planOf(cutLengthMm = 108): Plan {
  return {
    bar: {
      areaMm2: 125,
      availableMm: 1000,
      cutLengthMm,
      leftMm: 1000 - cutLengthMm,
      lossFraction: 0.05,
      marks: zones((cutLengthMm - 3) / 210),
      scaleShare: 0.05,
      startMm3: cutLengthMm * 125,
      thicknessMm: 5,
      widthMm: 25,
    },
    bend: { curvaturePerMm: 0.002, meanElongation: 0.1, riseMm: 9 },
    drawing: { finished: stations(1), forged: stations(1.02), finishedZones: zones(1), forgedZones: zones(1.02) },
    feasibility: [],
    findings: [],
    sections: [],
    heats: [],
    states: { fromMm: 0, toMm: 0, topMm: 0, bottomMm: 0, thicknessMm: 0 },
    ledger: [],
    operations: [],
    warnings: [],
    totals: { heats: 14, cycles: 3 },
    school: "thick",
  } as unknown as Plan;
}

export function answerOf(lengthMm: number, version: number): PieceAnswer {
  const doc = { name: "Knife", request: { design: { lengthMm, heightMm: 25 } } };
  const piece = { id: "p1", version, doc, canUndo: version > 1, canRedo: false } as unknown as Piece;
  return { piece, plan: planOf(lengthMm + 8) };
}
