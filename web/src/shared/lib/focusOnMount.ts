/** A ref that puts the focus into a field when it appears: the first field of a form or dialog. */
export const focusOnMount = (field: HTMLElement | null): void => {
  field?.focus();
};
