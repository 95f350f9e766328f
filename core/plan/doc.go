// Package plan is the contract of planning: what a plan is made from (Request, with the
// schools a smith chooses among) and what it comes to (Plan and its parts). It computes
// nothing but checks (Request.Validate) and looks-up. The rooms that make a plan stand one
// on the other: figure, route, heats, review, planner; whatif asks planner questions.
//
// Request and Plan carry the version of their form; Plan.Laws is the version of the laws
// that made it, which is raised whenever the same request would come to other figures.
package plan
