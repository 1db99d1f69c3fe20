import { type Answer, renderIn, serve } from '../../shared/testing/render';
import { figure, figures, groups, ladders, line, looked, page } from '../../shared/testing/phrases';
import { sampleBrief, sampleProject } from '../../shared/testing/samples';
import { PhrasesPage } from './PhrasesPage';

/** Shows the page of phrases over a server that answers with samples, but where `act` does. */
export function showPhrases(
  address = '/',
  told = figures(),
  act: (method: string, path: string) => Answer | undefined = () => undefined,
) {
  // There is nothing to be scrolled here.
  Element.prototype.scrollIntoView = () => undefined;
  const requests = serve((method, path) => {
    const own = act(method, path);
    if (own) return own;
    if (path.includes('/figures/look')) return { body: looked };
    if (path.includes('/figures')) return { body: told };
    if (path.includes('/one/'))
      return {
        body: {
          line: line('piano tuning', { variants: 2 }),
          gathered: [
            { phrase: 'piano tuning', way: 'head', figure: figure() },
            { phrase: 'tuning piano', way: 'order', figure: figure() },
          ],
          figures: [{ view: 'Ledger||', figure: figure({ low: 90, high: 90 }) }],
          companions: [{ line: line('piano tuner'), near: 0.7 }],
        },
      };
    if (path.includes('/groups')) return { body: groups };
    if (path.includes('/names')) return { body: ladders };
    if (method !== 'GET') return { body: { chosen: 2, taken: ['piano tuning'], problems: [], new: 1 } };
    return {
      body: page([
        line('piano tuning', { variants: 2, demand: 2100, chosen: true }),
        line('piano stool', {
          demand: null,
          figure: figure({ low: null, high: null, months: [], competition: null, price: null }),
        }),
      ]),
    };
  });
  const { client } = renderIn(
    <PhrasesPage
      project={sampleProject({ brief: sampleBrief({ owner: { ...sampleBrief().owner, country: 'IE' } }) })}
      checking={null}
      active={false}
    />,
    address,
  );
  return {
    client,
    requests,
    sent: (method: string, part: string) => requests.filter((r) => r.method === method && r.path.includes(part)),
  };
}
