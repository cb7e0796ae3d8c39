/** A scanner may send a sign before or after what it reads, and blanks: what is left is the serial. */
export const onlySerial = (typed: string) => typed.replace(/[\p{C}\s]+/gu, '').replace(/^\]\w\d/, '');
