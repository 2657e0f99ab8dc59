/** Which logbook this address holds: the server writes it into the page. */
export const logbookKind = (): 'own' | 'demo' =>
  document.querySelector<HTMLMetaElement>('meta[name="inkpath"]')?.content === 'demo' ? 'demo' : 'own';
