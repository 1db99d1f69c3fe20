/** Thousandths of a currency, whole: the server sends exact amounts, digits as text. They are compared within one currency only. */
export const thousandths = (amount: string | number): number => Math.round(Number(amount) * 1000);
