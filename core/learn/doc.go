// Package learn is what the book teaches: how far from the law this arm, this forge and this hand are,
// and how sure that is. Each finished piece gives at most one record of each kind: what was over what
// had been planned by the laws alone. Factors are fitted to them with a prior of three pieces at the
// law; the next one is told with Student's t. Pure; nothing of it changes a plan that is frozen.
package learn
