import { useState } from "react";
import type { NodeRules } from "../../bench/Nodes";

const shelf = "coldember.nodes";
const usual: NodeRules = { lockHeel: false, lockLength: true };

/** What dragging nodes keeps to, remembered on this device. */
export function useNodeRules(): [NodeRules, (r: NodeRules) => void] {
  const [rules, setRules] = useState<NodeRules>(() => {
    try {
      return { ...usual, ...(JSON.parse(localStorage.getItem(shelf) ?? "{}") as Partial<NodeRules>) };
    } catch {
      return usual;
    }
  });
  return [
    rules,
    (r) => {
      localStorage.setItem(shelf, JSON.stringify(r));
      setRules(r);
    },
  ];
}
