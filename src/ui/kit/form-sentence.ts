/** A refusal of one field without the field's path in the request, for the form in which that field stands. */
export const formSentence = (sentence: string): string => sentence.replace(/^body(\.\w+)+: /, "");
