/** Whether this page was served to the local network: then only the view at the anvil is there. */
export const onShelf = document.documentElement.dataset.shelf !== undefined;
