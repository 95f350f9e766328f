import { Popover } from "radix-ui";
import { say } from "../text/say";
import { Patterns } from "./patterns";

const zones = ["point", "blade", "ricasso", "tang"] as const;

/** What lines and signs of the bench mean: each drawn as it is there. */
const signs: [string, React.ReactNode][] = [
  ["keyed.waste", <rect key="s" x="4" y="3" width="36" height="14" fill="url(#h-waste)" stroke="var(--chalk)" />],
  ["keyed.chalk", <path key="s" d="M22 1V19" stroke="var(--chalk)" strokeWidth="2.5" strokeLinecap="round" />],
  ["keyed.cut", <path key="s" d="M22 1V19" stroke="var(--chalk)" strokeWidth="2" strokeDasharray="6 3" />],
  ["keyed.ticks", <path key="s" d="M4 6H40M8 9V13M16 9V13M24 9V13M32 9V13" stroke="var(--chalk)" />],
  ["keyed.within", <path key="s" d="M4 10H40" stroke="var(--chalk)" strokeDasharray="5 3" />],
  [
    "keyed.sweep",
    <path
      key="s"
      d="M4 4C16 6 28 14 40 16"
      fill="none"
      stroke="var(--chalk)"
      strokeWidth="1.5"
      strokeDasharray="1.5 5"
      strokeLinecap="round"
    />,
  ],
  ["keyed.section", <path key="s" d="M22 0V20" stroke="var(--act)" strokeWidth="1.5" strokeDasharray="8 3 2 3" />],
  ["keyed.lengthen", <path key="s" d="M4 10H40M9 7L4 10L9 13M35 7L40 10L35 13" fill="none" stroke="var(--quiet)" />],
  ["keyed.spread", <path key="s" d="M4 10H40M8 6V14M17 6V14M26 6V14M35 6V14" fill="none" stroke="var(--quiet)" />],
  [
    "keyed.narrow",
    <path key="s" d="M4 12H40M8 6L11 11L14 6M19 6L22 11L25 6M30 6L33 11L36 6" fill="none" stroke="var(--quiet)" />,
  ],
  ["keyed.wrong", <rect key="s" x="4" y="3" width="36" height="14" fill="url(#h-wrong)" />],
  ["keyed.hot", <path key="s" d="M6 6V14M38 6V14M6 10H38" stroke="var(--ember)" strokeWidth="2" />],
  ["keyed.handle", <circle key="s" cx="22" cy="10" r="6" fill="var(--plate)" stroke="var(--act)" strokeWidth="2.5" />],
];

/** The key to the bench: zones with their hatches, and every line and sign. */
export function Key() {
  return (
    <Popover.Root>
      <Popover.Trigger className="press press-plain no-print absolute right-2 top-2 z-10 text-sm" data-testid="key">
        {say("key.title")}
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          aria-label={say("key.title")}
          align="end"
          sideOffset={4}
          collisionPadding={12}
          className="z-50 max-h-[80vh] w-80 overflow-y-auto rounded border border-line bg-raised p-3 text-chalk shadow-lg"
        >
          <svg width="0" height="0" className="absolute" aria-hidden="true">
            <Patterns />
          </svg>
          <dl className="grid grid-cols-[44px_1fr] items-center gap-x-3 gap-y-1.5">
            {zones.map((z) => (
              <Line key={z} words={say("keyed.zone", { letter: say(`letter.${z}`), zone: say(`zone.${z}`) })}>
                <rect x="4" y="3" width="36" height="14" fill={`var(--zone-${z})`} fillOpacity="var(--zone-fill)" />
                <rect x="4" y="3" width="36" height="14" fill={`url(#h-${z})`} stroke="var(--chalk)" />
              </Line>
            ))}
            {signs.map(([code, drawn]) => (
              <Line key={code} words={say(code as "keyed.waste")}>
                {drawn}
              </Line>
            ))}
          </dl>
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}

const Line = ({ words, children }: { words: string; children: React.ReactNode }) => (
  <>
    <dt>
      <svg viewBox="0 0 44 20" width="44" height="20" aria-hidden="true">
        {children}
      </svg>
    </dt>
    <dd className="text-sm leading-snug">{words}</dd>
  </>
);
