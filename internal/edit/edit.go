// Package edit is how documents are changed by what is typed: a field's name and a
// text. Page, API, table and command line all come through here, so that what a
// field cannot take is refused in one way, where it was typed.
//
// # Grammar
//
// A field is a dotted name. Most are figures and choices of the document by their
// JSON names, a number picking from a list (design.tang.holes.0.atMm). What a figure
// measures is told by its name (quantity.KindOf); it is read with units, fractions
// and sums ("1 1/4 in", "110+15") by quantity.Parse. A choice takes one of the
// values that its type has.
//
// Beside them, for all documents:
//
//	name             the name; never empty
//
// A piece of work (fields of its request, such as design.lengthMm, smith.hammerKg):
//
//	notes                  any text
//	allowances.school      thick, close …         sets all allowances
//	allowances.zones       same, own              one allowance for all, or by zone
//	bar.form               flat, coil …           another usual piece of stock
//	bit                    none, cleft, edge, wrapped   of tool steel, welded into a softer bar
//	origin                 coilSpring …, ""       what the stock was: brings its hazards along
//	origin.acknowledge     coating …              a hazard that was seen to
//	choices.order          corners,point, …       operations by id; planner for the planner's
//	choices.forceOrder     the same               although it breaks a need
//	choices.stamp          yes, no
//	design.groove          none, fuller, strip, back
//	design.flatBend        none, bent             the end of the blade, over a form
//	design.setDeg          "6.5"                  the bevel's angle to platen or jig: sets its height
//	design.handle          none, drawn
//	design.hand            "85mm; 190mm"          breadth and length of a hand to fit
//	design.hole            add, slot, "delete 1"
//	design.tangForm        swell, hooked …        an outline for a full tang; plain for none
//	design.tangKind        hidden, full …         sets the tang's usual proportions
//	smith.skill            learning …             sets what a skill sets
//	smith.machine          press …, none          a usual machine
//	smith.machine.dies     flat …                 dies with their usual bite
//	smith.anvil            anvil, block, rail …   a usual one
//	smith.hand, smith.hammer, fire.hearth         a tool of the shop, sent whole as JSON
//	treatment.usual        ""                     hardened and tempered as usual for the steel
//	treatment.bath.class   fastOil …              a usual bath of the class
//	treatment.kiln         yes, no                soaked in a controlled oven
//	treatment.way          oven, sand, oilBath, torch   tempered so, with its usual swing and hours
//	treatment.tank, treatment.oven                one of the shop, sent whole as JSON
//	treatment.late.WORK    no, yes, forced        drill, bend or braze after the quench; forced
//	                       although it breaks a need
//	finish.reading.add     "42; 20; 3.1"          from the point; above the edge; thickness; off centre
//	finish.pit.add         "42; 20; front; .3"    and its depth below the face
//	finish.reading.delete, finish.pit.delete      N
//	finish.worn, finish.hardened                  yes, no
//	finish.take            JSON                   what it can still be: design, readings and pits
//	finish.hollow          length                 depth of a strip hollowed in both faces
//	finish.kept            JSON                   handle material of the shop, sent whole
//	finish.forget ""                     nothing was measured
//	finish.usual ""                     finished as usual
//	choices.soften yes, no                softened below the critical point
//	analysis.carbonPct …   per cent               by the certificate of its bar (a piece, or stock)
//	analysis.usual         ""                     as is typical of the grade
//	tool.ID                planner                the planner's tool for an operation
//	tool.ID.face           flat, round …
//	tool.ID.support        horn, edge …
//	tool.ID.by             hand, press …, quicker what works it
//	tool.ID.dies           flat …                 of its machine
//	taper.N                "42mm; 3.1mm"          a node: from the point; thickness
//	taper.add              "60mm"
//	taper.delete           N
//	outline.spine.N        "42; -3.5"             a node: from point and heel's spine
//	outline.edge.N         the same; of a full tang outline.tangTop.N and outline.tangBottom.N,
//	                       from its shoulder
//	outline.add            "edge 60mm"
//	outline.delete         "spine 3"
//	outline.corner         "spine 3"              a corner, or smooth again
//	outline.mirror         ""                     the edge is the spine turned over
//	outline.heel           "205mm"
//	picture.F              its figures; scale "10 20; 410 30; 120mm", widthMm, remove
//
// A pattern (fields design. and allowances.):
//
//	tags                   words with commas between
//	scale, scaleLength, scaleHeight, scaleThickness   per cent
//
// A piece of stock (its figures, piece. for those of its form):
//
//	origin                 coilSpring …, ""       what it was: brings its hazards along
//	known                  yes, no                whether its steel is known, or believed
//	test.T                 a result, ""           a finding; "" takes it back
//	hazard.H, seen.H       on, off                a hazard; one that was seen to
//	coupon.S               on, off                a step of the coupon that is done
//	dead.add               "40; 62; hole"         a dead stretch; "40; 62; hole; 10; 30" of
//	                       its width from one side only
//	layer.add              "7; 3"                 layers of a stack, and how thick each is
//	dead.delete            N
//	billet.lay             ""                     a bar of layers: the usual twisted one, to be changed
//	billet.stack.N.steel … , billet.steps.N.widthMm …, billet.turnsPer100Mm …
//	billet.layer.add, billet.layer.delete N, billet.cap yes|no
//	billet.step.add KIND, billet.step.delete N, billet.step.move "3; 1"
//	billet.for             "65; 210"              what to lay for so many layers in a bar so long
//	billet.none            ""  of one steel
//	billet.log             "split; 12; near the end"   what happened as it was welded: weld, split,
//	                       layers, salvaged, note; millimetres of the bar, or layers; words
//	billet.log.delete N, billet.etch ID   the picture of a test etch
//
// The shop (its settings; smiths.N., hammers.N., hearths.N., tongs.N., baths.N., ovens.N. for those of a set):
//
//	smiths.add             a name                 a copy of the first smith
//	hammers.add            light, usual, heavy
//	hearths.add            gas, charcoal …
//	tongs.add              thin, thick, box, vee
//	baths.add              mediumOil, fastOil …
//	blocks.add             block, scales, long
//	ovens.add kitchen, sand, kiln, oilBath
//	smiths.remove …        N
//	smiths.N.skill, .machine, .machine.dies       as for a piece
//	hours.add, hours.remove   "Ida", N             an hour at the forge with a scrap bar; its figures
//	                       as hours.N.blows, hours.N.magnetS; hours.N.off yes, no
//	learned.KIND|WHOSE     on, off, forget, remember   a factor of the book
//	                       count SESSION, leave SESSION  a piece of it that was asked about
//	likelihood.T.R.F       per cent, ""           the shop's own, or the table's
package edit

import (
	"errors"

	"coldember/core/fact"
	"coldember/core/forge"
	"coldember/core/quantity"
)

// Edit changes one field: Text is what was typed, read in Units where it has none
// of its own.
type Edit struct {
	Field string          `json:"field" maxLength:"200"`
	Text  string          `json:"text" maxLength:"20000"`
	Units quantity.System `json:"units,omitempty" pattern:"^(mm|in)(,(32|64))?(,[CF])?(,comma)?(,sooner)?$" doc:"what a number without a unit is in"`

	fire forge.Fire // of the shop, in which a billet is welded
}

// Problem is what is wrong with one field: Offset points into the typed text where
// that is known (−1 elsewhere).
type Problem struct {
	fact.FieldError
	Text   string
	Found  string
	Offset int
}

// InvalidError carries every problem.
type InvalidError struct{ Fields []Problem }

func (e *InvalidError) Error() string {
	errs := make(fact.FieldErrors, len(e.Fields))
	for i, f := range e.Fields {
		errs[i] = f.FieldError
	}
	return errs.Error()
}

// Invalid turns the core's field errors into an *InvalidError; other errors, and
// nil, stay.
func Invalid(err error) error {
	var fe fact.FieldErrors
	if !errors.As(err, &fe) {
		return err
	}
	out := &InvalidError{}
	for _, f := range fe {
		out.Fields = append(out.Fields, Problem{FieldError: f, Offset: -1})
	}
	return out
}

// One is an *InvalidError of one field.
func One(field, code string, figures fact.Figures, found string) error {
	return &InvalidError{Fields: []Problem{{FieldError: fact.FieldError{Field: field, Code: code, Figures: figures}, Found: found, Offset: -1}}}
}

// each applies edits one by one and gathers what cannot be.
func each(edits []Edit, one func(Edit) *Problem) error {
	var bad []Problem
	for _, e := range edits {
		if p := one(e); p != nil {
			bad = append(bad, *p)
		}
	}
	if len(bad) > 0 {
		return &InvalidError{Fields: bad}
	}
	return nil
}

func problemAt(e Edit, code string, offset int) *Problem {
	return &Problem{FieldError: fact.FieldError{Field: e.Field, Code: code}, Text: e.Text, Offset: offset}
}

// outside is the problem of a figure that is out of its range; code tells how the
// limits are printed.
func outside(e Edit, code string, lowest, highest float64) *Problem {
	p := problemAt(e, code, -1)
	p.Figures = fact.Figures{"lowest": lowest, "highest": highest}
	return p
}
