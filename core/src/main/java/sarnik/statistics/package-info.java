/**
 * What a statistician would insist on: how sure a rate is, what is more than chance, what makes a difference, what is
 * unlikely. Pure functions over numbers, each with its source, tested against published values; nothing here knows of
 * tables or visuals.
 */
package sarnik.statistics;
