/** Where menus are laid: within the page, so that they are part of it to those who listen. */
export const over = (): HTMLElement | undefined => document.getElementById("over") ?? undefined;
