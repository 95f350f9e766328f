package work

import (
	"context"
	"slices"

	"coldember/internal/doc"
	"coldember/internal/edit"
)

// Role is what somebody is in the shop.
type Role string

// The roles. Who sits at the machine itself is the smith, to whom all of it belongs.
const (
	Smith   Role = "smith"
	Teacher Role = "teacher"
	Student Role = "student"
)

// Viewer is who asks. A student sees what is their own and what is shared, and changes only their own; all others see and
// change everything.
type Viewer struct {
	Name string
	Role Role
}

type viewerKey struct{}

// As says who asks with a context; nobody said is the smith.
func As(ctx context.Context, v Viewer) context.Context { return context.WithValue(ctx, viewerKey{}, v) }

// ViewerOf is who asks.
func ViewerOf(ctx context.Context) Viewer {
	if v, ok := ctx.Value(viewerKey{}).(Viewer); ok {
		return v
	}
	return Viewer{Role: Smith}
}

// Sees tells whether a piece of work is theirs to see.
func (v Viewer) Sees(p *doc.Piece) bool { return v.Role != Student || p.Owner == v.Name || p.Shared }

// Changes tells whether it is theirs to change.
func (v Viewer) Changes(p *doc.Piece) bool { return v.Role != Student || p.Owner == v.Name }

// NotYoursError says that something is seen, but belongs to another.
type NotYoursError struct{ Owner string }

func (e *NotYoursError) Error() string { return "work: it belongs to another" }

// MayChange is nil where a piece of work is the viewer's to change; else ErrNotFound for what they do not see, or *NotYoursError.
func (w *Work) MayChange(ctx context.Context, pieceID string) error {
	p, err := w.Piece(ctx, pieceID)
	if err == nil && !ViewerOf(ctx).Changes(&p.Doc) {
		err = &NotYoursError{Owner: p.Doc.Owner}
	}
	return err
}

// owned gives a new piece of work to who makes it: a student's is their own, another's the shop's.
func owned(ctx context.Context, d doc.Piece) doc.Piece {
	d.Owner, d.Shared = "", false
	if v := ViewerOf(ctx); v.Role == Student {
		d.Owner = v.Name
	}
	return d
}

// Class are the students by name, in the order of their letters; a student is told of none.
func (w *Work) Class(ctx context.Context) (names []string, err error) {
	if ViewerOf(ctx).Role == Student {
		return nil, nil
	}
	all, err := w.AllAccess(ctx)
	for _, a := range all {
		if a.Kind == string(Student) {
			names = append(names, a.Name)
		}
	}
	slices.Sort(names)
	return names, err
}

// mayGive refuses an owner that a piece cannot have: a student does not say whose it is, and it is given to nobody but the shop
// or one of the class.
func (w *Work) mayGive(ctx context.Context, was, is *doc.Piece) error {
	if was.Owner == is.Owner {
		return nil
	}
	if ViewerOf(ctx).Role == Student {
		return edit.One("owner", "school.owner", nil, is.Owner)
	}
	class, err := w.Class(ctx)
	if err == nil && is.Owner != "" && !slices.Contains(class, is.Owner) {
		err = edit.One("owner", "school.nobody", nil, is.Owner)
	}
	return err
}

// visible are the ids of the pieces of work that the viewer sees; nil where that is all of them.
func (w *Work) visible(ctx context.Context) (map[string]bool, error) {
	if ViewerOf(ctx).Role != Student {
		return nil, nil
	}
	out := map[string]bool{}
	for _, archived := range []bool{false, true} {
		all, _, err := w.Pieces(ctx, archived)
		if err != nil {
			return nil, err
		}
		for _, p := range all {
			out[p.ID] = true
		}
	}
	return out, nil
}
