import { useEffect } from "react";

/** Keeps the screen on while the component is there. */
export function useAwake(): void {
  useEffect(() => {
    let lock: WakeLockSentinel | undefined;
    let gone = false;
    const hold = async () => {
      if (document.visibilityState !== "visible" || !("wakeLock" in navigator)) return;
      try {
        lock = await navigator.wakeLock.request("screen");
        document.documentElement.dataset.awake = "1";
        if (gone) await lock.release();
      } catch {
        // the browser does not let it: low on power, or not a safe page
      }
    };
    void hold();
    document.addEventListener("visibilitychange", hold);
    return () => {
      gone = true;
      delete document.documentElement.dataset.awake;
      document.removeEventListener("visibilitychange", hold);
      void lock?.release();
    };
  }, []);
}
