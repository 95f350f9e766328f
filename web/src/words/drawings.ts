/** What a stroke of a small drawing is of. */
export type Of = "steel" | "hot" | "tool" | "line" | "dash" | "mark" | "arrow";

/** A stroke: what it is of, and its path in a box of 120 × 60. */
export type Stroke = [Of, string];

const blade: Stroke = ["steel", "M6 30C12 18 26 13 44 13H78V17H112V29H78V39H34C20 39 10 36 6 30Z"];
const side: Stroke = ["steel", "M6 30L78 24H112V36H78Z"];
const bar: Stroke = ["steel", "M8 22H112V40H8Z"];
const anvil: Stroke = [
  "tool",
  "M8 38C18 38 24 36 34 36H110V43H88C80 46 80 50 86 56H50C56 50 56 46 48 43H36C26 43 14 42 8 38Z",
];
const hammer = (x: number, y: number): Stroke => [
  "tool",
  `M${x - 7} ${y}H${x + 7}V${y + 14}H${x - 7}Z M${x + 7} ${y + 5}H${x + 40}V${y + 9}H${x + 7}Z`,
];
const fire: Stroke = [
  "tool",
  "M14 54C8 40 22 36 20 24C32 32 30 40 36 34C40 26 34 18 42 10C46 24 58 28 54 42C52 50 48 54 44 56H22Z",
];
const down = (x: number, from: number, to: number): Stroke => ["arrow", `M${x} ${from}V${to}`];
const across = (y: number, from: number, to: number): Stroke => ["arrow", `M${from} ${y}H${to}`];
const dies = (upper: string, lower: string): Stroke[] => [
  ["tool", upper],
  ["tool", lower],
];

/** A small drawing for every word. */
export const drawings: Record<string, Stroke[]> = {
  point: [blade, ["mark", "M2 30a5 5 0 1 0 10 0a5 5 0 1 0 -10 0Z"]],
  heel: [blade, ["mark", "M73 39a5 5 0 1 0 10 0a5 5 0 1 0 -10 0Z"]],
  spine: [blade, ["mark", "M6 30C12 18 26 13 44 13H78"]],
  edge: [blade, ["mark", "M6 30C10 36 20 39 34 39H78"]],
  belly: [blade, ["mark", "M6 30C10 36 20 39 34 39"]],
  ricasso: [blade, ["mark", "M66 13H78V39H66Z"]],
  shoulder: [blade, ["mark", "M78 13V17H84M78 39V29H84"]],
  plunge: [blade, ["dash", "M8 26C20 22 40 22 62 22"], ["mark", "M62 22C66 24 67 30 67 39"]],
  bevel: [blade, ["dash", "M10 25C24 20 44 20 64 20V39"], ["mark", "M6 30C10 36 20 39 34 39H64V20C44 20 24 20 10 25Z"]],
  falseEdge: [blade, ["mark", "M6 30C12 18 26 13 44 13L40 18C28 18 16 22 6 30Z"]],
  grind: [
    ["steel", "M14 8H28L22 54H20Z"],
    ["steel", "M46 8H60C58 26 55 40 54 54H52C51 40 48 26 46 8Z"],
    ["steel", "M78 8H92C94 26 90 42 86 54H84C80 42 76 26 78 8Z"],
    ["steel", "M106 8H116V54H114Z"],
  ],
  groove: [blade, ["mark", "M30 20H64V26H30Z"]],
  distalTaper: [side, ["mark", "M6 30L78 24M6 30L78 36"]],
  section: [blade, ["mark", "M48 8V44"], ["steel", "M98 40H108L104 58H102Z"]],
  line: [
    ["steel", "M6 20C30 44 70 48 112 30L114 38C72 58 26 54 6 20Z"],
    ["dash", "M6 20C28 48 70 53 113 34"],
  ],
  tang: [blade, ["mark", "M78 17H112V29H78Z"]],
  handle: [blade, ["mark", "M78 13C90 9 104 9 114 14C116 20 116 26 114 32C104 38 90 40 78 36Z"]],
  guard: [blade, ["mark", "M76 6H82V48H76Z"]],
  bolster: [blade, ["mark", "M78 11H90V38H78Z"]],
  pommel: [blade, ["mark", "M106 10H116V36H106Z"]],
  rivet: [
    ["tool", "M10 12H110V24H10Z M10 36H110V48H10Z"],
    ["steel", "M10 24H110V36H10Z"],
    ["mark", "M55 8H65L63 12V48L65 52H55L57 48V12Z"],
  ],
  bar: [bar],
  zone: [bar, ["line", "M24 22V40M66 22V40M80 22V40"], ["mark", "M24 22H66V40H24Z"]],
  chalk: [bar, ["mark", "M24 16V46M66 16V46M80 16V46"]],
  kerf: [
    ["steel", "M8 22H58V40H8Z M64 22H112V40H64Z"],
    ["mark", "M58 18H64V44H58Z"],
  ],
  trim: [bar, ["dash", "M102 14V48"], ["mark", "M102 22H112V40H102Z"]],
  heldStub: [bar, ["tool", "M84 16H118V22H84Z M84 40H118V46H84Z"], ["mark", "M84 22H112V40H84Z"]],
  remnant: [
    ["steel", "M8 22H40V40H8Z"],
    ["mark", "M48 22H112V40H48Z"],
  ],
  deadStretch: [bar, ["tool", "M56 31a6 6 0 1 0 12 0a6 6 0 1 0 -12 0Z"], ["mark", "M48 18H76V44H48Z"]],
  belief: [
    ["steel", "M20 44C20 8 40 8 40 44M40 44C40 8 60 8 60 44M60 44C60 8 80 8 80 44"],
    ["mark", "M100 22a7 7 0 1 1 8 8V36M108 44V46"],
  ],
  coupon: [
    ["steel", "M8 24H56L50 38H8Z M66 24H112V38H60Z"],
    ["mark", "M56 24L50 38M66 24L60 38"],
  ],
  heat: [fire, ["hot", "M62 30H84V38H62Z"], ["steel", "M84 30H114V38H84Z"], ["arrow", "M96 20C86 8 64 8 54 18"]],
  blow: [hammer(50, 6), anvil, ["hot", "M30 30H70V36H30Z"], down(50, 22, 29)],
  bite: [
    ["tool", "M46 4H74V20H46Z"],
    ["hot", "M8 24H46C50 24 50 28 54 28H66C70 28 70 24 74 24H112V40H8Z"],
    ["mark", "M46 46V54M74 46V54M46 50H74"],
  ],
  hammerFace: [
    ["tool", "M40 6H80V34C80 44 40 44 40 34Z"],
    ["mark", "M40 34C40 44 80 44 80 34"],
    ["hot", "M10 46H110V56H10Z"],
  ],
  peen: [
    ["tool", "M44 6H76L64 36C62 40 58 40 56 36Z"],
    ["mark", "M56 36C58 40 62 40 64 36"],
    ["hot", "M10 44H110V56H10Z"],
    across(50, 64, 100),
    across(50, 56, 20),
  ],
  drawOut: [["hot", "M8 22H40V40H8Z"], ["hot", "M52 26H112V36H52Z"], across(31, 40, 51)],
  spread: [
    ["hot", "M8 24H52V36H8Z"],
    ["hot", "M66 14H112V46H66Z"],
    ["arrow", "M89 22V15"],
    ["arrow", "M89 38V45"],
  ],
  upset: [["hot", "M8 24H60V36H8Z"], ["hot", "M74 18H112V42H74Z"], across(30, 118, 112), ["arrow", "M60 30H72"]],
  corners: [
    ["dash", "M34 12H86V48H34Z"],
    ["hot", "M42 12H78L86 20V40L78 48H42L34 40V20Z"],
  ],
  preform: [
    ["dash", "M6 30C12 18 26 13 44 13H78"],
    ["hot", "M6 46C22 30 40 24 78 20V36C50 36 28 42 6 46Z"],
    ["steel", "M78 22H112V32H78Z"],
  ],
  setDown: [anvil, ["hot", "M20 20H72V36H34V28H20Z"], ["steel", "M72 20H112V36H72Z"], hammer(26, 2)],
  fullerTool: [
    ["tool", "M50 2H70V24C70 32 50 32 50 24Z"],
    ["hot", "M8 24H46C50 36 70 36 74 24H112V46H8Z"],
  ],
  planish: [anvil, ["hot", "M26 32H96V36H26Z"], hammer(44, 12), ["dash", "M32 30H86"]],
  lip: [
    ["steel", "M8 30C30 30 36 26 50 22C62 18 58 30 46 30H112V46H8Z"],
    ["mark", "M46 30C58 30 62 18 50 22"],
  ],
  edgewise: [anvil, ["hot", "M50 12H60V36H50Z"], down(55, 2, 11)],
  hotCut: [
    ["hot", "M8 22H54L60 34L66 22H112V40H8Z"],
    ["tool", "M52 2H68L60 32Z"],
  ],
  hardy: [
    ["tool", "M8 40H112V50H8Z"],
    ["tool", "M46 40L60 16L74 40Z M54 50H66V58H54Z"],
  ],
  horn: [anvil, ["mark", "M8 38C18 38 24 36 34 36V43C26 43 14 42 8 38Z"]],
  scarf: [
    ["hot", "M8 20H60L40 34H8Z"],
    ["hot", "M112 40H46L68 26H112Z"],
  ],
  weld: [
    ["hot", "M8 20H112V29H8Z"],
    ["hot", "M8 31H112V40H8Z"],
    ["mark", "M8 30H112"],
    down(60, 4, 18),
    ["arrow", "M60 56V42"],
  ],
  flux: [
    ["hot", "M8 34H112V48H8Z"],
    ["mark", "M40 8V12M52 14V18M64 8V12M46 22V26M58 24V28M72 20V24"],
  ],
  punch: [
    ["tool", "M54 2H66L64 24H56Z"],
    ["hot", "M8 24H54V42H8Z M66 24H112V42H66Z"],
    ["mark", "M54 42H66V50H54Z"],
  ],
  drift: [
    ["hot", "M8 26C40 26 46 18 60 18C74 18 80 26 112 26V42C80 42 74 50 60 50C46 50 40 42 8 42Z"],
    ["tool", "M52 4H68L62 58H58Z"],
  ],
  twist: [
    ["hot", "M8 24H36C48 24 48 38 60 38C72 38 72 24 84 24H112V38H84C72 38 72 24 60 24C48 24 48 38 36 38H8Z"],
    ["arrow", "M52 12C58 4 68 6 70 14"],
  ],
  loop: [
    [
      "steel",
      "M6 26H70C96 26 100 14 108 20C118 30 104 46 88 38C78 34 84 26 92 28C98 30 94 36 88 34C96 40 108 34 106 26C102 20 96 34 70 34H6Z",
    ],
  ],
  press: [...dies("M40 2H80V22H40Z", "M40 38H80V58H40Z"), ["hot", "M8 22H112V38H8Z"]],
  powerHammer: [
    ["tool", "M88 4H104V58H88Z M50 4H88V10H50Z"],
    ["tool", "M46 10H66V26H46Z M42 40H70V58H42Z"],
    ["hot", "M14 32H84V40H14Z"],
    down(56, 27, 31),
  ],
  rolls: [
    ["tool", "M60 14a14 14 0 1 0 .1 0Z M60 46"],
    ["tool", "M60 40a14 14 0 1 0 .1 0Z"],
    ["hot", "M4 24H56V44H4Z"],
    ["hot", "M64 29H118V39H64Z"],
  ],
  striker: [
    anvil,
    ["hot", "M30 30H70V36H30Z"],
    hammer(40, 14),
    ["tool", "M52 -2L66 6L58 18L44 10Z M62 10L112 26L110 30L60 14Z"],
  ],
  dies: [
    ["tool", "M8 4H48V24H8Z"],
    ["hot", "M8 28H48V36H8Z"],
    ["tool", "M72 4H112V14C112 26 72 26 72 14Z"],
    ["hot", "M72 28H112V36H72Z"],
  ],
  stops: [
    ...dies("M30 4H90V16H30Z", "M30 44H90V56H30Z"),
    ["mark", "M30 16H38V44H30Z M82 16H90V44H82Z"],
    ["hot", "M46 24H74V36H46Z"],
  ],
  soak: [["steel", "M10 10H44V50H10Z"], ["hot", "M18 18H36V42H18Z"], across(30, 52, 66), ["hot", "M76 10H110V50H76Z"]],
  window: [
    ["line", "M20 6V54M14 54H26"],
    ["mark", "M20 16H60V36H20Z"],
    ["dash", "M20 16H108M20 36H108"],
  ],
  heatColour: [
    ["tool", "M6 22H32V40H6Z"],
    ["hot", "M32 22H60V40H32Z"],
    ["mark", "M60 22H86V40H60Z"],
    ["line", "M86 22H112V40H86Z"],
  ],
  scale: [
    ["hot", "M8 26H112V44H8Z"],
    ["mark", "M12 24L22 18L30 24M40 24L48 16L58 24M70 24L80 18L88 24M96 24L104 19L110 24"],
  ],
  decarb: [
    ["steel", "M10 10H110V50H10Z"],
    ["dash", "M16 16H104V44H16Z"],
    ["mark", "M10 10H110V16H10Z M10 44H110V50H10Z"],
  ],
  grain: [
    ["steel", "M8 12H52V48H8Z"],
    ["line", "M8 24L20 12M20 48L34 28L20 12M34 28L52 20M34 28L44 48"],
    ["steel", "M68 12H112V48H68Z"],
    ["line", "M68 20H112M68 28H112M68 36H112M68 43H112M76 12V48M84 12V48M92 12V48M100 12V48"],
  ],
  burnt: [
    ["hot", "M8 24H70L74 28L80 24L86 32L92 26L98 36L90 42H8Z"],
    ["mark", "M94 14L100 8M102 22L112 20M98 42L108 48"],
  ],
  cycle: [
    ["line", "M8 54H114M8 54V6"],
    ["mark", "M10 52L22 12L38 50L50 18L66 50L78 24L94 50"],
  ],
  anneal: [
    ["line", "M8 54H114M8 54V6"],
    ["mark", "M10 52L24 12H34C60 14 90 40 112 50"],
  ],
  magnet: [
    ["tool", "M30 50V26C30 8 58 8 58 26V50H48V28C48 20 40 20 40 28V50Z"],
    ["dash", "M66 30H80"],
    ["hot", "M84 22H112V40H84Z"],
  ],
  harden: [
    ["hot", "M8 22H50V36H8Z"],
    across(29, 54, 66),
    ["steel", "M70 22H112V36H70Z"],
    ["line", "M76 40L80 44M88 40L92 44M100 40L104 44"],
  ],
  quench: [
    ["tool", "M30 18V56H90V18"],
    ["line", "M30 26H90"],
    ["hot", "M56 2H64V22H56Z"],
    ["steel", "M56 22H64L60 50Z"],
    down(104, 10, 34),
  ],
  temper: [
    ["line", "M8 54H114M8 54V6"],
    ["mark", "M10 52L24 38H64L78 52"],
    ["dash", "M10 14H112"],
  ],
  allowance: [["dash", "M4 30C10 12 26 8 44 8H82V46H32C16 46 6 38 4 30Z"], blade],
  strain: [["dash", "M14 8H50V52H14Z"], ["hot", "M70 22H114V38H70Z"], across(30, 52, 68)],
  flowStress: [
    ["hot", "M34 26H86V40H34Z"],
    down(60, 4, 24),
    ["arrow", "M60 58V42"],
    across(33, 88, 108),
    ["arrow", "M32 33H12"],
  ],
  ledger: [
    ["steel", "M8 14H64V24H8Z"],
    ["mark", "M64 14H84V24H64Z"],
    ["hot", "M84 14H104V24H84Z"],
    ["tool", "M104 14H112V24H104Z"],
    ["line", "M8 36H112M8 44H112M8 52H80"],
  ],
  balance: [blade, ["tool", "M66 41L74 57H58Z"]],
  sureLength: [bar, ["mark", "M84 12V50"], ["dash", "M74 18V44M94 18V44"]],
};
