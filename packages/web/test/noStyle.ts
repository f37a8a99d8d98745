// A style sheet, on a page without layout.
export {};
