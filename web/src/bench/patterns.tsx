import { memo } from "react";
/** Hatches of the zones and of what is wrong: colour is never the only sign. */
export const Patterns = memo(function Patterns() {
  return (
    <defs>
      {/* point: rising strokes; blade: long level strokes; ricasso: cross; tang: dots */}
      <pattern id="h-point" width="7" height="7" patternUnits="userSpaceOnUse">
        <path d="M0,7L7,0" stroke="var(--zone-point)" strokeWidth="1" opacity="0.75" />
      </pattern>
      <pattern id="h-blade" width="14" height="6" patternUnits="userSpaceOnUse">
        <path d="M0,3H9" stroke="var(--zone-blade)" strokeWidth="1" opacity="0.75" />
      </pattern>
      <pattern id="h-ricasso" width="7" height="7" patternUnits="userSpaceOnUse">
        <path d="M0,0L7,7M7,0L0,7" stroke="var(--zone-ricasso)" strokeWidth="0.9" opacity="0.8" />
      </pattern>
      <pattern id="h-tang" width="7" height="7" patternUnits="userSpaceOnUse">
        <circle cx="3.500" cy="3.500" r="1.1" fill="var(--zone-tang)" opacity="0.9" />
      </pattern>
      <pattern id="h-waste" width="6" height="6" patternUnits="userSpaceOnUse">
        <path d="M0,0L6,6" stroke="var(--quiet)" strokeWidth="0.8" />
      </pattern>
      <pattern id="h-wrong" width="8" height="8" patternUnits="userSpaceOnUse">
        <path d="M-1,1L1,-1M0,8L8,0M7,9L9,7" stroke="var(--ember)" strokeWidth="2" />
      </pattern>
    </defs>
  );
});
