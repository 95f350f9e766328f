package shelf

import (
	"net/http"
	"strings"

	"coldember/internal/api"
	"coldember/internal/server"
	"coldember/internal/work"

	"github.com/go-chi/chi/v5"
)

// A class: persons are paired as screens are, each by a name of their own. What a student may do is this list and nothing else;
// whose a piece of work is, is looked at for every call, here and again where it is read and written.

// need is what a route wants of a student.
type need int

const (
	nothing     need = iota // it is nobody's, or the answer holds only what the student sees
	seePiece                // the piece of work that is named is theirs, or shared
	ownPiece                // it is theirs
	seeSession              // the session that is named is of a piece that they see
	tellSession             // of one that is theirs
)

// class are the routes that a student has.
var class = []struct {
	method, path string
	need         need
}{
	{"GET", "/me", nothing},
	{"GET", "/events", nothing},
	{"GET", "/steels", nothing},
	{"GET", "/salvage", nothing},
	{"GET", "/find", nothing},
	{"GET", "/help/{name}", nothing},
	{"GET", "/patterns", nothing},
	{"GET", "/patterns/{id}/revisions", nothing},
	{"GET", "/patterns/{id}/export/{format}", nothing},
	{"GET", "/stock", nothing},
	{"GET", "/stock/{id}/fits", nothing},
	{"GET", "/pictures/{id}", nothing},
	{"POST", "/pictures", nothing},
	{"POST", "/photo", nothing},
	{"POST", "/calc/{kind}", nothing},
	{"POST", "/billet", nothing},
	{"GET", "/timers", nothing},
	{"POST", "/timers", nothing},
	{"POST", "/timers/{id}/stop", nothing},
	{"GET", "/sessions", nothing},
	{"GET", "/practice/exercises", nothing},
	{"GET", "/practice/sheet", nothing},
	{"POST", "/practice/sheet", nothing},
	{"POST", "/practice/play", nothing},
	{"POST", "/practice/advice", nothing},
	{"POST", "/practice/beside", nothing},
	{"POST", "/practice/colours/ask", nothing},
	{"POST", "/practice/colours/judge", nothing},
	{"POST", "/plan/costs", nothing},
	{"POST", "/plan/doubts", nothing},
	{"POST", "/plan/face", nothing},
	{"POST", "/plan/face/solid", nothing},
	{"POST", "/plan/finish", nothing},
	{"POST", "/plan/hopes", nothing},
	{"POST", "/plan/largest", nothing},
	{"POST", "/plan/preview", nothing},
	{"POST", "/plan/rank", nothing},
	{"POST", "/plan/spine", nothing},
	{"POST", "/plan/states", nothing},
	{"POST", "/plan/still", nothing},
	{"POST", "/plan/sure", nothing},
	{"POST", "/plan/treatment", nothing},
	{"POST", "/plan/wishes", nothing},
	{"POST", "/plan/within", nothing},
	{"GET", "/pieces", nothing},
	{"POST", "/pieces", nothing},
	{"POST", "/pieces/shared", nothing},
	{"GET", "/pieces/{id}", seePiece},
	{"POST", "/pieces/{id}/duplicate", seePiece},
	{"GET", "/pieces/{id}/card.pdf", seePiece},
	{"GET", "/pieces/{id}/cuts", seePiece},
	{"GET", "/pieces/{id}/exercise", seePiece},
	{"GET", "/pieces/{id}/export/{format}", seePiece},
	{"GET", "/pieces/{id}/face.png", seePiece},
	{"GET", "/pieces/{id}/face.svg", seePiece},
	{"GET", "/pieces/{id}/fire", seePiece},
	{"GET", "/pieces/{id}/fittings.pdf", seePiece},
	{"GET", "/pieces/{id}/fittings.svg", seePiece},
	{"GET", "/pieces/{id}/fittings.dxf", seePiece},
	{"GET", "/pieces/{id}/gauges.pdf", seePiece},
	{"GET", "/pieces/{id}/heats.csv", seePiece},
	{"GET", "/pieces/{id}/heats.pdf", seePiece},
	{"GET", "/pieces/{id}/solid", seePiece},
	{"GET", "/pieces/{id}/share.zip", ownPiece},
	{"PATCH", "/pieces/{id}", ownPiece},
	{"POST", "/pieces/{id}/archive", ownPiece},
	{"POST", "/pieces/{id}/restore", ownPiece},
	{"POST", "/pieces/{id}/undo", ownPiece},
	{"POST", "/pieces/{id}/redo", ownPiece},
	{"POST", "/pieces/{id}/outline", ownPiece},
	{"POST", "/pieces/{id}/picture", ownPiece},
	{"POST", "/pieces/{id}/finished", ownPiece},
	{"POST", "/pieces/{id}/fire", ownPiece},
	{"GET", "/sessions/{id}", seeSession},
	{"GET", "/sessions/{id}/book", seeSession},
	{"GET", "/sessions/{id}/book.csv", seeSession},
	{"GET", "/sessions/{id}/book.json", seeSession},
	{"GET", "/sessions/{id}/book.pdf", seeSession},
	{"GET", "/sessions/{id}/events", seeSession},
	{"GET", "/sessions/{id}/moment", seeSession},
	{"GET", "/sessions/{id}/now", seeSession},
	{"POST", "/sessions/{id}/events", tellSession},
	{"POST", "/sessions/{id}/inside", tellSession},
	{"POST", "/sessions/{id}/replan", tellSession},
	{"POST", "/sessions/{id}/replan/take", tellSession},
}

const apiRoot = "/api/v1"

// notOnNet are the beginnings of what is done at the machine itself alone, whoever asks: copies and archives of all of it, who
// is let in, and the shelf.
var notOnNet = []string{"/archive", "/copies", "/access", "/shelf"}

// classHandler serves persons: the whole application to a teacher, but for what is done at the machine itself; to a student what
// is in the list.
func (s *Shelf) classHandler(whole http.Handler) http.Handler {
	student := chi.NewRouter()
	for _, c := range class {
		student.Method(c.method, apiRoot+c.path, s.needs(c.need, whole))
	}
	student.Get(apiRoot+"/shop", func(w http.ResponseWriter, r *http.Request) {
		v, err := s.work.Shop(r.Context())
		answer(w, api.ClassSettings(v), err)
	})
	refused := func(w http.ResponseWriter, _ *http.Request) {
		api.WriteProblem(w, http.StatusForbidden, "school.teacherOnly")
	}
	student.NotFound(refused)
	student.MethodNotAllowed(refused)
	pages := server.Pages(s.front, "")
	return http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		path, isAPI := strings.CutPrefix(r.URL.Path, apiRoot)
		switch {
		case !isAPI && (r.Method == http.MethodGet || r.Method == http.MethodHead):
			pages(w, r)
		case !isAPI:
			api.WriteProblem(w, http.StatusNotFound, "problem.notFound")
		case work.ViewerOf(r.Context()).Role != work.Teacher:
			student.ServeHTTP(w, r)
		case notHere(r.Method, path):
			api.WriteProblem(w, http.StatusForbidden, "school.atTheMachine")
		default:
			whole.ServeHTTP(w, r)
		}
	})
}

// notHere tells what a teacher does at the machine itself. The settings may name folders of it.
func notHere(method, path string) bool {
	for _, p := range notOnNet {
		if path == p || strings.HasPrefix(path, p+"/") {
			return true
		}
	}
	return path == "/shop" && method != http.MethodGet
}

// needs looks whose it is before a student's call goes on.
func (s *Shelf) needs(n need, next http.Handler) http.Handler {
	return http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		ctx, id := r.Context(), chi.URLParam(r, "id")
		var err error
		switch n {
		case nothing:
		case seePiece:
			_, err = s.work.Piece(ctx, id)
		case ownPiece:
			err = s.work.MayChange(ctx, id)
		case seeSession, tellSession:
			f, gone := s.work.Fire(ctx, id)
			if err = gone; err == nil && n == tellSession {
				err = s.work.MayChange(ctx, f.PieceID)
			}
		}
		if p := api.Explain(err, ""); err != nil && p != nil {
			api.WriteProblem(w, p.Status, p.Code)
			return
		}
		if err != nil {
			api.WriteProblem(w, http.StatusInternalServerError, "problem.internal")
			return
		}
		next.ServeHTTP(w, r)
	})
}
