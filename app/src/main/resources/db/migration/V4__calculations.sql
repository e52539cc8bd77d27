-- Formulas and standing rules of a dataset: {formulas: [{name, text, measure}], rules: [text]}.
ALTER TABLE datasets ADD COLUMN calculations jsonb;
