import {
  EditorState,
  EditorView,
  HighlightStyle,
  StandardSQL,
  autocompletion,
  bracketMatching,
  completionKeymap,
  defaultKeymap,
  drawSelection,
  history,
  historyKeymap,
  keymap,
  placeholder,
  setDiagnostics,
  sql,
  syntaxHighlighting,
  tags,
} from '/vendor/codemirror.js';

const colours = HighlightStyle.define([
  { tag: tags.keyword, color: 'var(--loch)', fontWeight: '650' },
  { tag: [tags.string, tags.special(tags.string)], color: 'var(--rust)' },
  { tag: tags.number, color: 'var(--lichen)' },
  { tag: tags.lineComment, color: 'var(--faint)', fontStyle: 'italic' },
]);

const look = EditorView.theme({
  '&': { fontSize: '18px', background: 'var(--leaf)', color: 'var(--ink)' },
  '&.cm-focused': { outline: '2px solid var(--loch)', outlineOffset: '0' },
  '.cm-content': { fontFamily: 'var(--font-text)', padding: '10px 0', minHeight: '90px', caretColor: 'var(--ink)' },
  '.cm-scroller': { fontFamily: 'inherit' },
  '.cm-line': { padding: '0 12px' },
  '.cm-placeholder': { color: 'var(--faint)' },
  '.cm-tooltip': { background: 'var(--paper)', border: '1px solid var(--ink)', color: 'var(--ink)' },
  '.cm-tooltip-autocomplete ul li': { padding: '3px 10px', fontFamily: 'var(--font-text)', fontSize: '14px' },
  '.cm-tooltip-autocomplete ul li[aria-selected]': { background: 'var(--loch)', color: 'var(--paper)' },
  '.cm-completionDetail': { color: 'var(--faint)', fontStyle: 'normal', marginLeft: '14px' },
  'li[aria-selected] .cm-completionDetail': { color: 'var(--paper)' },
  '.cm-completionIcon': { display: 'none' },
  '.cm-lintRange-error': { backgroundImage: 'none', borderBottom: '2.5px solid var(--rust)' },
});

/**
 * A place to write one formula, with completion of columns, places and functions.
 * @param {HTMLElement} place
 * @param {{word: string, kind: string, hint: string}[]} words what can be completed
 * @param {(text: string) => void} onChange
 */
export class FormulaEditor {
  constructor(place, words, onChange) {
    const options = words.map(w => ({
      label: w.word,
      detail: w.hint,
      type: w.kind,
      boost: w.kind === 'function' ? 0 : 10,
    }));
    const complete = context => {
      const typed =
        context.matchBefore(/"?[\p{L}_][\p{L}\p{N}_ ]*$|:?[\p{L}_][\p{L}\p{N}_]*|:/u) ??
        context.matchBefore(/[\p{L}_]+/u);
      if (!typed && !context.explicit) return null;
      const word = context.matchBefore(/[":]?[\p{L}\p{N}_]*/u);
      return { from: word ? word.from : context.pos, options, validFor: /^[":]?[\p{L}\p{N}_]*$/u };
    };
    // In a root of its own the editor's styles are constructed sheets, which the content policy allows.
    const root = place.attachShadow({ mode: 'open' });
    this.view = new EditorView({
      parent: root,
      root,
      state: EditorState.create({
        doc: '',
        extensions: [
          history(),
          drawSelection(),
          bracketMatching(),
          sql({ dialect: StandardSQL }),
          syntaxHighlighting(colours),
          look,
          EditorView.lineWrapping,
          autocompletion({ override: [complete], icons: false }),
          keymap.of([...completionKeymap, ...defaultKeymap, ...historyKeymap]),
          placeholder('such as SUM(takings) / NULLIF(SUM(litres), 0)'),
          EditorView.contentAttributes.of({ 'aria-label': 'Formula' }),
          EditorView.updateListener.of(update => update.docChanged && onChange(this.text)),
        ],
      }),
    });
  }

  get text() {
    return this.view.state.doc.toString();
  }

  set text(text) {
    this.view.dispatch({ changes: { from: 0, to: this.view.state.doc.length, insert: text } });
  }

  focus() {
    this.view.focus();
  }

  /** Underlines what is wrong; without a trouble takes the line away. */
  mark(trouble) {
    const length = this.view.state.doc.length;
    const marks =
      trouble && trouble.from >= 0
        ? [
            {
              from: Math.min(trouble.from, Math.max(0, length - 1)),
              to: Math.min(Math.max(trouble.to, trouble.from + 1), length),
              severity: 'error',
              message: trouble.words,
            },
          ]
        : [];
    this.view.dispatch(
      setDiagnostics(
        this.view.state,
        marks.filter(m => m.to > m.from),
      ),
    );
  }
}
