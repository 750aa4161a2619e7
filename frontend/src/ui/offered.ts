/** Press the button of the offered step, if one is on the screen. */
export const takeOffered = (): void => document.querySelector<HTMLButtonElement>("[data-offered]")?.click();
