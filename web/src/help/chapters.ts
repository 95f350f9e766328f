/** A chapter of the handbook: its words are help.<id>.title and help.<id>.words. */
export interface Chapter {
  id: string;
  to: string;
  drawing?: "bar" | "heats" | "profile" | "cooling";
}

/** In the order in which smiths work. */
export const chapters: Chapter[] = [
  { id: "bar", to: "/?new", drawing: "bar" },
  { id: "heats", to: "/", drawing: "heats" },
  { id: "fire", to: "/", drawing: "cooling" },
  { id: "practice", to: "/practice" },
  { id: "harden", to: "/day" },
  { id: "finish", to: "/" },
  { id: "log", to: "/learned" },
  { id: "shapes", to: "/patterns", drawing: "profile" },
  { id: "stock", to: "/rack" },
  { id: "files", to: "/shop" },
];
