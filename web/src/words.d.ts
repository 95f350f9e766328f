/** The words of the pages that come later; the build parts them (vite.config.ts). */
declare module "*.json?later" {
  const words: Record<string, string>;
  export default words;
}
