import { createStore, del, get, set } from "idb-keyval";
import { Refused, sendKept } from "../api/client";

/** Pictures that were taken while the line was down wait in the browser, under names that begin with this. */
const waiting = "local-";
const shelf = () => createStore("coldember", "pictures");

/** Sends a picture, or keeps it here until it can be sent; the answer names it. A picture that cannot be is refused. */
export async function keepPicture(file: Blob): Promise<string> {
  try {
    return (await sendKept(file)).name;
  } catch (e) {
    if (e instanceof Refused && e.problem.status < 500) throw e;
    const name = waiting + Array.from(crypto.getRandomValues(new Uint8Array(8)), (b) => b.toString(16)).join("");
    await set(name, file, shelf());
    return name;
  }
}

/** The name under which the server keeps a picture that waited here; sends it first. One that is gone keeps its name. */
export async function sent(name: string): Promise<string> {
  if (!name.startsWith(waiting)) return name;
  const file = await get<Blob>(name, shelf());
  if (!file) return name;
  const kept = (await sendKept(file)).name;
  await del(name, shelf());
  return kept;
}
