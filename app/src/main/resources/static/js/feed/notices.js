import { el } from '../elements.js';
import { act, choice, kept, line, page, place } from './page.js';

/** Who is told when devices turn. */

const TOLD = {
  'BAD,SILENT': 'bad or silent',
  BAD: 'bad',
  SILENT: 'silent',
  'WATCH,BAD,SILENT': 'anything but good',
};
const QUIET = { no: 'At any time of day', yes: 'Not between' };

export function drawNotices() {
  const n = page.feed.settings.notices;
  const change = more => {
    page.feed.settings = { ...page.feed.settings, notices: more && { ...n, ...more } };
    drawNotices();
  };
  if (!n) {
    place('notices').replaceChildren(
      el('p', {}, 'Nobody is told when devices turn.'),
      act('Tell somebody', async () =>
        change({
          states: ['BAD', 'SILENT'],
          well: true,
          mails: [],
          hook: null,
          zone: Intl.DateTimeFormat().resolvedOptions().timeZone,
        }),
      ),
      ' ',
      kept(),
    );
    return;
  }
  const states = n.states.join();
  place('notices').replaceChildren(
    el(
      'p',
      { class: 'form-sentence' },
      'When a device turns ',
      choice('To which states', states in TOLD ? TOLD : { [states]: states, ...TOLD }, states, v =>
        change({ states: v.split(',') }),
      ),
      ', ',
      choice(
        'And when it leaves them',
        { true: 'and when it is well again', false: 'and not when it is well again' },
        String(n.well),
        v => change({ well: v === 'true' }),
      ),
      ', mail goes to ',
      line(
        'Addresses of mail, a space between',
        n.mails.join(' '),
        v => change({ mails: v.split(/[\s,;]+/).filter(Boolean) }),
        {
          look: 'feed-broker',
          hint: 'nobody',
        },
      ),
      ' and JSON to ',
      line('Address of a web hook', n.hook, v => change({ hook: v || null }), {
        look: 'feed-broker',
        hint: 'no web hook',
      }),
      '. ',
      choice('When', QUIET, n.quietFrom ? 'yes' : 'no', v =>
        change(v === 'yes' ? { quietFrom: '22:00', quietUntil: '06:30' } : { quietFrom: null, quietUntil: null }),
      ),
      n.quietFrom
        ? el(
            'span',
            {},
            ' ',
            line('Quiet from', n.quietFrom, v => change({ quietFrom: v }), { look: 'feed-unit' }),
            ' and ',
            line('Quiet until', n.quietUntil, v => change({ quietUntil: v }), { look: 'feed-unit' }),
            ' in ',
            line('In the time of', n.zone, v => change({ zone: v }), { look: 'feed-at' }),
            ': what turns meanwhile is told afterwards',
          )
        : '',
      '. The page that is told along: ',
      line('Address of a page', n.link, v => change({ link: v || null }), { look: 'feed-broker', hint: 'none' }),
      '.',
    ),
    n.mails.length && !page.feed.mails
      ? el(
          'p',
          { class: 'sentence-bad' },
          'No server for mail is named in the settings (SARNIK_MAIL_HOST), so mail waits.',
        )
      : '',
    act('Tell nobody', async () => change(null)),
    ' ',
    kept(),
    page.feed.told.length
      ? el(
          'details',
          {},
          el('summary', { class: 'text-small' }, 'What was told, the newest first'),
          el(
            'ul',
            { class: 'doubts' },
            ...page.feed.told.map(t =>
              el(
                'li',
                {},
                `${t.device} is ${t.state}, to ${t.address}: `,
                t.sent
                  ? `sent ${new Date(t.sent).toLocaleString('en')}`
                  : el(
                      'span',
                      { class: t.failed ? 'sentence-bad' : '' },
                      `${t.givenUp ? 'given up' : `waits until ${new Date(t.due).toLocaleString('en')}`}${t.failed ? `: ${t.failed}` : ''}`,
                    ),
              ),
            ),
          ),
        )
      : '',
  );
}
