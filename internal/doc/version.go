package doc

import (
	"encoding/json"
	"fmt"
	"maps"
	"slices"
	"strconv"
	"strings"

	"coldember/core/forge"
	"coldember/core/session"
)

// Document is what can be stored: Piece, Pattern, Stock, Shop, Kept, Session or one of its
// events, and what was Practised.
type Document interface {
	Piece | Pattern | Stock | Shop | Kept | Session | session.Event | Practised
}

// form is the history of how a kind of document is written: ups[i] brings version
// i+1 to version i+2. One that is nil only allows more to be said: what was written before it
// reads as it is.
type form struct {
	name string
	ups  []func(map[string]any)
}

func (f form) version() int { return len(f.ups) + 1 }

// formOf is the present form of a document.
func formOf(d any) form {
	switch d.(type) {
	case Piece:
		return form{name: "piece", ups: []func(map[string]any){pieceHasArm, hasShapes, hasTreatment, hasWays, nil, hasGivenNames, namesSurface, nil, nil}}
	case Pattern:
		return form{name: "pattern", ups: []func(map[string]any){patternHasTags, hasShapes, hasGivenNames}}
	case Stock:
		return form{name: "stock", ups: []func(map[string]any){stockHistoryHasRows, hasWidths, hasAnalysis, nil, nil, nil}}
	case Shop:
		return form{name: "shop", ups: []func(map[string]any){shopHasSets, shopKeepsCopies, shopHasArms, shopPrintsFractions, shopHasTongs, shopHasBaths, nil, hasGivenNames, nil, nil, nil}}
	case Kept:
		return form{name: "plan", ups: []func(map[string]any){keptIsWhole, keptHasPeen, hasShapes, hasTreatment, hasWays, nil, nil, namesSurface, nil, nil}}
	case Session:
		return form{name: "session", ups: []func(map[string]any){hasTreatment, hasWays, nil, nil, hasGivenNames, namesSurface, nil, nil}}
	case Practised:
		return form{name: "practised"}
	case session.Event:
		return form{name: "event", ups: []func(map[string]any){nil, nil}}
	}
	panic(fmt.Sprintf("doc: %T is no document", d))
}

// NewerError says that a document was written by a newer version of the program; it
// is left as it is.
type NewerError struct {
	Kind    string
	Version int // of the document
	Reads   int // the newest that this program reads
}

func (e *NewerError) Error() string {
	return fmt.Sprintf("doc: this %s is of form %d; this program reads up to %d", e.Kind, e.Version, e.Reads)
}

// BrokenError says that a stored document cannot be read.
type BrokenError struct {
	Kind string
	Err  error
}

func (e *BrokenError) Error() string { return fmt.Sprintf("doc: broken %s: %v", e.Kind, e.Err) }

// Unwrap is what was wrong with the text.
func (e *BrokenError) Unwrap() error { return e.Err }

// Encode writes a document with the version of its form.
func Encode[T Document](d T) string {
	b, err := json.Marshal(withNames(d, StoredName))
	if err != nil {
		panic(fmt.Sprintf("doc: encode: %v", err)) // our own types, and figures that were looked at
	}
	return fmt.Sprintf(`{"docVersion":%d,%s`, formOf(d).version(), b[1:])
}

// Decode reads a document of any version up to the present. Errors are *NewerError
// and *BrokenError.
func Decode[T Document](text string) (T, error) {
	var d T
	f := formOf(d)
	version, err := versionOf(text)
	if err != nil {
		return d, &BrokenError{Kind: f.name, Err: err}
	}
	if version > f.version() {
		return d, &NewerError{Kind: f.name, Version: version, Reads: f.version()}
	}
	if slices.ContainsFunc(f.ups[version-1:], func(up func(map[string]any)) bool { return up != nil }) {
		var m map[string]any
		if err := json.Unmarshal([]byte(text), &m); err != nil {
			return d, &BrokenError{Kind: f.name, Err: err}
		}
		for _, up := range f.ups[version-1:] {
			if up != nil {
				up(m)
			}
		}
		b, err := json.Marshal(m)
		if err != nil {
			return d, &BrokenError{Kind: f.name, Err: err}
		}
		text = string(b)
	}
	if err := json.Unmarshal([]byte(text), &d); err != nil {
		return d, &BrokenError{Kind: f.name, Err: err}
	}
	return withNames(d, SpokenName), nil
}

// versionOf is the version of a document's form: what Encode wrote says it first, so that ten
// thousand events need not be read twice.
func versionOf(text string) (int, error) {
	if rest, ok := strings.CutPrefix(text, `{"docVersion":`); ok {
		if n, _, ok := strings.Cut(rest, ","); ok {
			if v, err := strconv.Atoi(n); err == nil {
				return max(1, v), nil
			}
		}
	}
	head := struct {
		DocVersion int `json:"docVersion"`
	}{}
	err := json.Unmarshal([]byte(text), &head)
	return max(1, head.DocVersion), err // the first forms were written without
}

// Copy is a document of its own: nothing of it is shared.
func Copy[T Document](d T) T {
	out, err := Decode[T](Encode(d))
	if err != nil {
		panic(fmt.Sprintf("doc: copy: %v", err)) // what was just written
	}
	return out
}

// patternHasTags (1 → 2): no tags are an empty list.
func patternHasTags(m map[string]any) {
	if m["tags"] == nil {
		m["tags"] = []any{}
	}
}

// stockHistoryHasRows (1 → 2): what was cut from a piece is no longer in it; the
// migration of the database made rows of it.
func stockHistoryHasRows(m map[string]any) { delete(m, "history") }

// keptIsWhole (1 → 2): the first form was the request alone.
func keptIsWhole(m map[string]any) {
	request := maps.Clone(m)
	clear(m)
	m["request"] = request
}

// shopHasSets (1 → 2): a shop that never said which hammers and forges it has has
// the usual ones.
func shopHasSets(m map[string]any) {
	usual := Shop{}
	usual.UsualSets()
	if m["hammers"] == nil {
		m["hammers"] = usual.Hammers // whose peens have lengths
	}
	if m["hearths"] == nil {
		m["hearths"] = usual.Hearths
	}
	delete(m, "version") // the row has it
}

// usualKeep is how many copies a shop keeps that never said.
const usualKeep = 14

// shopKeepsCopies (2 → 3): beside the file, and a fortnight of them.
func shopKeepsCopies(m map[string]any) { m["copies"] = CopySettings{Keep: usualKeep} }

// usualPeenMm is the length of a peen that was never measured.
const usualPeenMm = 40.0

// pieceHasArm (1 → 2): a peen has a length, and a smith whose speed, pace and share of good
// blows were never set by hand has those of the arm.
func pieceHasArm(m map[string]any) {
	if r, ok := m["request"].(map[string]any); ok {
		hasArm(r["smith"])
	}
}

// shopHasArms (3 → 4): the same for every smith of the shop; its hammers have peens.
func shopHasArms(m map[string]any) {
	for _, s := range list(m["smiths"]) {
		hasArm(s)
	}
	for _, h := range list(m["hammers"]) {
		hasPeen(h)
	}
}

// keptHasPeen (2 → 3): a kept plan stays as it was made.
func keptHasPeen(m map[string]any) {
	if r, ok := m["request"].(map[string]any); ok {
		hasPeen(r["smith"])
	}
}

func list(v any) []any {
	out, _ := v.([]any)
	return out
}

func hasPeen(v any) {
	if m, ok := v.(map[string]any); ok && m["peenLengthMm"] == nil {
		m["peenLengthMm"] = usualPeenMm
	}
}

// hasArm brings one smith up. What skills set until then is told by all three figures.
func hasArm(v any) {
	m, ok := v.(map[string]any)
	if !ok {
		return
	}
	hasPeen(m)
	skill, _ := m["skill"].(string)
	was := map[string][3]float64{"learning": {5.2, 1.1, .6}, "steady": {6, 1.3, .8}, "sure": {6.4, 1.4, .95}}[skill]
	kg, weighed := m["hammerKg"].(float64)
	if has := [3]any{m["speedMPerS"], m["ratePerS"], m["landShare"]}; !weighed || kg <= 0 || has != [3]any{was[0], was[1], was[2]} {
		return
	}
	m["speedMPerS"], m["ratePerS"] = forge.Arm(kg)
	m["landShare"] = forge.NewSmith(forge.Skill(skill)).LandShare
}

// hasShapes (piece and pattern 2 → 3, plan 3 → 4): a full tang may have an outline and slots, a
// blade be bent flatwise, have a stop, a false edge of a length, a bevel on the left, an integral
// bolster, a bit of another steel. What says nothing of them is as it was.
func hasShapes(map[string]any) {}

// hasTreatment (piece 3 → 4, plan 4 → 5, session 1 → 2): hardening and tempering may be other than
// is usual for the steel.
func hasTreatment(map[string]any) {}

// hasWidths (2 → 3): a dead stretch may be of a part of the width.
func hasWidths(map[string]any) {}

// hasWays (piece 4 → 5, plan 5 → 6, session 2 → 3): there are other ways to temper than an oven,
// work left until after the quench, softening, and a bar has its certificate's composition.
func hasWays(map[string]any) {}

// hasAnalysis (3 → 4): a known bar has its certificate's composition.
func hasAnalysis(map[string]any) {}

// shopHasBaths (6 → 7): a shop that never said which tanks and ovens it has has the usual ones.
func shopHasBaths(m map[string]any) {
	usual := Shop{}
	usual.usualTreating()
	if m["baths"] == nil {
		m["baths"] = usual.Baths
	}
	if m["blocks"] == nil {
		m["blocks"] = usual.Blocks
	}
	if m["ovens"] == nil {
		m["ovens"] = usual.Ovens
	}
}

// namesSurface (piece 7 → 8, plan 8 → 9, session 6 → 7): a finish has a name of its own. What was
// “sanded” went to 600, so nothing less will do; “flats” are as forged.
func namesSurface(m map[string]any) {
	r, ok := m["request"].(map[string]any)
	if !ok {
		return
	}
	if f, ok := r["finish"].(map[string]any); ok {
		switch f["surface"] {
		case "sanded":
			f["surface"] = "satin800"
		case "flats":
			f["surface"] = "forged"
		}
	}
}

// shopHasTongs (5 → 6): a shop that never said which it has has the usual ones.
func shopHasTongs(m map[string]any) {
	if m["tongs"] == nil {
		usual := Shop{}
		usual.usualTongs()
		m["tongs"] = usual.Tongs
	}
}

// shopPrintsFractions (4 → 5): fractions and temperatures are as usual with the units.
func shopPrintsFractions(map[string]any) {}
