export { EditorState } from '@codemirror/state';
export { EditorView, keymap, placeholder, drawSelection } from '@codemirror/view';
export { defaultKeymap, history, historyKeymap } from '@codemirror/commands';
export { autocompletion, completionKeymap } from '@codemirror/autocomplete';
export { HighlightStyle, syntaxHighlighting, bracketMatching } from '@codemirror/language';
export { sql, StandardSQL } from '@codemirror/lang-sql';
export { setDiagnostics } from '@codemirror/lint';
export { tags } from '@lezer/highlight';
