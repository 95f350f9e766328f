// Package remedy looks for edits that clear the findings of a plan. A remedy is told only after it was planned: it is taken
// by its fields as a smith would type it, its finding is gone, and nothing of the same weight or above has come.
//
// Find takes the document, its plan and how plans are made, and tells every remedy as soon as it is known. It is
// deterministic, bounded in plans, and stops with its context.
package remedy
