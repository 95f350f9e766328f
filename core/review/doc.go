// Package review looks a plan over and says what a smith should know before the fire: what
// will not work, what wants a decision, what is worth knowing, each as a code with its
// figures and, where one edit clears it, with that edit.
package review
