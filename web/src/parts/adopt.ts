// Styles that are made while the app runs are adopted by the page as sheets of their own: a strict policy of
// its origin lets no style stand in the page itself.
const adopted = new Map<string, { sheet: CSSStyleSheet; times: number }>();

// adopt has the page take a style; it returns how to let it go. The same style is taken once.
export function adopt(css: string): () => void {
  const had = adopted.get(css);
  if (had) had.times++;
  else {
    const sheet = new CSSStyleSheet();
    sheet.replaceSync(css);
    document.adoptedStyleSheets.push(sheet);
    adopted.set(css, { sheet, times: 1 });
  }
  return () => {
    const one = adopted.get(css);
    if (!one || --one.times > 0) return;
    adopted.delete(css);
    document.adoptedStyleSheets = document.adoptedStyleSheets.filter((s) => s !== one.sheet);
  };
}
