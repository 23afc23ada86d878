/**
 * For every window over the page. Only a key, a button or a press beside it closes one: a menu that it was opened from takes the keyboard
 * back for a moment as it goes, and on a slow machine that comes after the window has opened.
 */
export const closedOnPurpose = {
  onFocusOutside: (event: { preventDefault: () => void }) => event.preventDefault(),
};
