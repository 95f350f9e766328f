package shelf

import (
	"encoding/json"
	"errors"
	"html/template"
	"mime"
	"net/http"
	"regexp"
	"slices"
	"strings"

	"coldember/internal/api"
	"coldember/internal/edit"
	"coldember/internal/server"
	"coldember/internal/text"
	"coldember/internal/work"

	"github.com/go-chi/chi/v5"
)

// sixDigits are a code as a link brings it.
var sixDigits = regexp.MustCompile(`^[0-9]{6}$`)

const (
	pairPath = "/pair"
	homePath = "/shelf"
	cookie   = "__Host-coldember-shelf"
	keepsFor = 180 * 24 * 3600 // seconds
	mostForm = 4 << 10
	mostSays = 400
)

// may are the routes of the API that a paired screen may use, and what an instrument may with its own key: what the view at the
// anvil reads and tells, and nothing else.
var may = []struct{ method, path string }{
	{http.MethodGet, "/api/v1/pieces/{id}/fire"},
	{http.MethodGet, "/api/v1/sessions/{id}/events"},
	{http.MethodPost, "/api/v1/sessions/{id}/events"},
	{http.MethodGet, "/api/v1/sessions/{id}/now"},
	{http.MethodGet, "/api/v1/events"},
	{http.MethodGet, "/api/v1/timers"},
	{http.MethodPost, "/api/v1/timers/{id}/stop"},
	{http.MethodPost, "/api/v1/pictures"},
	{http.MethodGet, "/api/v1/pictures/{id}"},
	{http.MethodPost, "/api/v1/readings"},
	{http.MethodGet, "/api/v1/readings/wanted"},
	{http.MethodGet, "/api/v1/shelf/fires"},
}

func (s *Shelf) handler() http.Handler {
	whole := chi.NewRouter()
	api.Mount(whole, s.work, nil)
	s.class = s.classHandler(whole)
	r := chi.NewRouter()
	r.Use(server.Recoverer, s.guard)
	r.NotFound(func(w http.ResponseWriter, _ *http.Request) {
		api.WriteProblem(w, http.StatusNotFound, "problem.notFound")
	})
	r.MethodNotAllowed(func(w http.ResponseWriter, _ *http.Request) {
		api.WriteProblem(w, http.StatusNotFound, "problem.notFound")
	})
	for _, m := range may {
		r.Method(m.method, m.path, whole)
	}
	r.Get("/api/v1/shop", s.shop)
	r.Get(pairPath, func(w http.ResponseWriter, r *http.Request) { s.form(w, r, http.StatusOK, "") })
	r.Post(pairPath, s.pair)
	pages := server.Pages(s.front, "data-shelf")
	r.Get("/", func(w http.ResponseWriter, r *http.Request) { http.Redirect(w, r, homePath, http.StatusSeeOther) })
	r.Get(homePath, pages)
	r.Get("/pieces/{id}/fire", pages)
	for _, file := range []string{"/assets/*", "/firescreen.wasm", "/wasm_exec.js", "/ear.js", "/mark.svg"} {
		r.Get(file, pages)
	}
	return r
}

// guard lets nobody in but who names this machine, does not ask too often, comes from a page of its own, and is paired, but for
// the page that pairs and the files of the pages, which are no secret.
func (s *Shelf) guard(next http.Handler) http.Handler {
	return http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		h := w.Header()
		server.Armour(h)
		h.Set("Strict-Transport-Security", "max-age=31536000")
		if !s.rate.may(r) {
			h.Set("Retry-After", "2")
			api.WriteProblem(w, http.StatusTooManyRequests, "problem.tooOften")
			return
		}
		o, from := r.Header.Get("Origin"), r.Header.Get("Sec-Fetch-Site")
		if !s.host(r) || o != "" && o != "https://"+r.Host || r.URL.Path != pairPath && (from == "cross-site" || from == "same-site") {
			api.WriteProblem(w, http.StatusForbidden, "problem.origin")
			return
		}
		if strings.HasPrefix(r.URL.Path, "/api/") {
			h.Set("Cache-Control", "no-store")
		}
		who, known := s.paired(r)
		if !s.open(r) && !known {
			if r.Method == http.MethodGet && !strings.HasPrefix(r.URL.Path, "/api/") {
				http.Redirect(w, r, pairPath, http.StatusSeeOther)
				return
			}
			api.WriteProblem(w, http.StatusUnauthorized, "problem.locked")
			return
		}
		if r.Method != http.MethodGet && r.Method != http.MethodHead && r.URL.Path != pairPath && !said(r) {
			api.WriteProblem(w, http.StatusUnsupportedMediaType, "problem.media")
			return
		}
		r.Body = http.MaxBytesReader(w, r.Body, work.MaxPictureBytes+1)
		if known && work.IsPerson(who.Kind) && r.URL.Path != pairPath && !api.Reports(r) {
			s.class.ServeHTTP(w, r.WithContext(work.As(r.Context(), work.Viewer{Name: who.Name, Role: work.Role(who.Kind)})))
			return
		}
		next.ServeHTTP(w, r)
	})
}

// said tells whether a request says what its body is.
func said(r *http.Request) bool {
	if r.ContentLength == 0 {
		return true
	}
	kind, _, err := mime.ParseMediaType(r.Header.Get("Content-Type"))
	return err == nil && slices.Contains([]string{"application/json", "application/octet-stream", "application/x-ndjson"}, kind)
}

// open tells whether a request needs no pairing: it pairs, it is a file of the pages, or it is of an instrument, whose own key
// is looked at where it lands.
func (s *Shelf) open(r *http.Request) bool {
	return r.URL.Path == pairPath || strings.HasPrefix(r.URL.Path, "/assets/") || api.Reports(r)
}

// says is what a browser says of itself.
func says(r *http.Request) string {
	ua := "browser " + r.UserAgent()
	return ua[:min(len(ua), mostSays)]
}

// paired is who asks, a screen or a person.
func (s *Shelf) paired(r *http.Request) (work.Access, bool) {
	c, err := r.Cookie(cookie)
	if err != nil {
		return work.Access{}, false
	}
	a, err := s.work.WhoHas(r.Context(), c.Value, says(r))
	return a, err == nil && (a.Kind == work.Screen || work.IsPerson(a.Kind))
}

var page = template.Must(template.New("pair").Parse(`<!doctype html>
<html lang="{{.Lang}}"><head><meta charset="utf-8"><meta name="viewport" content="width=device-width, initial-scale=1"><title>{{.Title}}</title>
<style>body{font:18px/1.45 system-ui,sans-serif;background:#15181a;color:#ebe6da;margin:0;padding:6vmin;max-width:40rem}h1{font-size:2rem;margin:0 0 1rem}
label{display:block;margin:1rem 0}input{display:block;font:inherit;width:100%;box-sizing:border-box;margin-top:.3rem;padding:.6rem;background:#1f2427;color:inherit;border:1px solid #4a5257}
.code{font-size:2.2rem;letter-spacing:.3em}button{font:inherit;padding:.8rem 1.4rem;background:#1f6f64;color:#fff;border:0;border-radius:3px;min-height:48px}
.wrong{border-left:4px solid #f0714d;padding-left:.8rem}code{display:block;overflow-wrap:anywhere;font-size:.9rem;color:#9ba39f}</style></head>
<body><h1>{{.Title}}</h1>{{if .Wrong}}<p class="wrong" role="alert">{{.Wrong}}</p>{{end}}
<form method="post" action="/pair"><label>{{.Code}}<input class="code" name="code" inputmode="numeric" autocomplete="one-time-code" pattern="[0-9]{6}" maxlength="6" value="{{.Given}}" required autofocus></label>
<label>{{.Name}}<input name="name" value="{{.Usual}}" maxlength="60" required></label><button>{{.Go}}</button></form>
<p>{{.Check}}<code>{{.Fingerprint}}</code></p></body></html>
`))

func (s *Shelf) form(w http.ResponseWriter, r *http.Request, status int, wrong string) {
	w.Header().Set("Content-Type", "text/html; charset=utf-8")
	w.Header().Set("Cache-Control", "no-store")
	w.Header().Set("Referrer-Policy", "same-origin") // else a browser says of its form that it comes from nowhere
	w.WriteHeader(status)
	say := func(code string) string { return text.Say(code, nil) }
	if wrong != "" {
		wrong = say(wrong)
	}
	usual := say("pair.usual")
	if _, kind, _, _ := s.pairs.open(); work.IsPerson(kind) {
		usual = "" // a person has their own
	}
	_ = page.Execute(w, map[string]string{
		"Lang": text.Language(), "Title": say("pair.title"), "Code": say("pair.code"), "Name": say("pair.name"), "Usual": usual, "Go": say("pair.go"), "Check": say("pair.fingerprint"), "Wrong": wrong,
		"Fingerprint": s.State().Fingerprint, "Given": sixDigits.FindString(r.URL.Query().Get("code")),
	})
}

// pair takes the code, and gives the browser a token of its own.
func (s *Shelf) pair(w http.ResponseWriter, r *http.Request) {
	r.Body = http.MaxBytesReader(w, r.Body, mostForm)
	if err := r.ParseForm(); err != nil {
		s.form(w, r, http.StatusBadRequest, "pair.wrong")
		return
	}
	name := strings.TrimSpace(r.PostForm.Get("name"))
	if name == "" || len([]rune(name)) > 60 {
		s.form(w, r, http.StatusUnprocessableEntity, "pair.badName")
		return
	}
	kind, err := s.pairs.try(strings.TrimSpace(r.PostForm.Get("code")))
	switch {
	case errors.Is(err, ErrSlow):
		s.form(w, r, http.StatusTooManyRequests, "pair.slow")
		return
	case err != nil:
		s.form(w, r, http.StatusForbidden, "pair.wrong")
		return
	}
	_, key, err := s.work.AddAccess(r.Context(), kind, name, says(r))
	var wrong *edit.InvalidError
	switch {
	case errors.As(err, &wrong):
		s.form(w, r, http.StatusUnprocessableEntity, wrong.Fields[0].Code)
		return
	case err != nil:
		api.WriteProblem(w, http.StatusInternalServerError, "problem.internal")
		return
	}
	http.SetCookie(w, &http.Cookie{Name: cookie, Value: key, Path: "/", MaxAge: keepsFor, Secure: true, HttpOnly: true, SameSite: http.SameSiteStrictMode})
	home := homePath
	if work.IsPerson(kind) {
		home = "/"
	}
	http.Redirect(w, r, home, http.StatusSeeOther)
}

func answer(w http.ResponseWriter, v any, err error) {
	if err != nil {
		api.WriteProblem(w, http.StatusInternalServerError, "problem.internal")
		return
	}
	w.Header().Set("Content-Type", "application/json")
	_ = json.NewEncoder(w).Encode(v)
}

func (s *Shelf) shop(w http.ResponseWriter, r *http.Request) {
	v, err := s.work.Shop(r.Context())
	answer(w, api.ShelfSettings(v), err)
}
