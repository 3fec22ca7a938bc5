// Package server offers Jantel's work over HTTP: the API below /api, the
// interface at every other path. It listens on loopback only, and trusts
// nobody who does not bring the token it prints.
package server

import (
	"cmp"
	"context"
	"crypto/rand"
	"encoding/hex"
	"errors"
	"fmt"
	"jantel/core/charter"
	"log/slog"
	"net"
	"net/http"
	"os"
	"path/filepath"
	"reflect"
	"slices"
	"strings"
	"sync"
	"sync/atomic"
	"time"

	"jantel/review"
	"jantel/server/worker"
	"jantel/store"

	"github.com/danielgtaylor/huma/v2"
	"github.com/danielgtaylor/huma/v2/adapters/humachi"
	"github.com/go-chi/chi/v5"
	"github.com/go-chi/chi/v5/middleware"
)

// Config is what a server needs.
type Config struct {
	Addr    string   // host and port on loopback
	Data    string   // data folder
	Allow   []string // folders that may be surveyed
	Version string
	Log     *slog.Logger
	// Limits are what one survey may take; the zero value stands for limits
	// that fit the machine.
	Limits worker.Limits
}

// Server is a running Jantel.
type Server struct {
	cfg     Config
	review  *store.Review
	facts   *store.Facts
	lock    *store.Lock
	looks   atomic.Int64
	hub     *hub
	jobs    *jobs
	shelf   *shelf
	session string // the cookie's value
	start   string // the token that is exchanged for it
	hosts   map[string]bool
	cookie  string
	http    *http.Server
	ln      net.Listener
	stop    context.CancelFunc
	texts   corpus
	past    pastScores
	listed  struct {
		sync.Mutex
		of map[int64]listed
	}
}

// New opens the data and starts to listen; Serve then answers.
func New(ctx context.Context, cfg Config) (*Server, error) {
	host, _, err := net.SplitHostPort(cfg.Addr)
	if err != nil {
		return nil, fmt.Errorf("the address %q is not host:port", cfg.Addr)
	}
	if ip := net.ParseIP(host); host != "localhost" && (ip == nil || !ip.IsLoopback()) {
		return nil, fmt.Errorf("the address %s is beyond loopback, and there is no sign-in yet; use 127.0.0.1", cfg.Addr)
	}
	// Workers stand in folders of their own, and take its path from there.
	if cfg.Data, err = filepath.Abs(cfg.Data); err != nil {
		return nil, fmt.Errorf("the data folder %s: %w", cfg.Data, err)
	}
	if cfg.Log == nil {
		cfg.Log = slog.New(slog.DiscardHandler)
	}
	if cfg.Limits == (worker.Limits{}) {
		cfg.Limits = worker.DefaultLimits()
	}
	lock, err := store.LockFolder(cfg.Data, cfg.Addr)
	if err != nil {
		return nil, err
	}
	rv, err := store.OpenReview(ctx, cfg.Data)
	if err != nil {
		return nil, errors.Join(err, lock.Release())
	}
	facts, err := store.OpenFacts(ctx, cfg.Data)
	if err != nil {
		return nil, errors.Join(err, rv.Close(), lock.Release())
	}
	fail := func(err error) (*Server, error) {
		return nil, errors.Join(err, facts.Close(), rv.Close(), lock.Release())
	}
	if err := worker.SweepScratch(cfg.Data); err != nil {
		return fail(fmt.Errorf("what an earlier server left in %s can not be removed: %w", worker.Scratch(cfg.Data), err))
	}
	if err := rv.InterruptSurveys(ctx); err != nil {
		return fail(err)
	}
	session, err := secret(filepath.Join(cfg.Data, "session.key"))
	if err != nil {
		return fail(err)
	}
	ln, err := net.Listen("tcp", cfg.Addr)
	if err != nil {
		return fail(fmt.Errorf("the address %s can not be used: %w; choose another with --addr", cfg.Addr, err))
	}
	s := &Server{
		cfg: cfg, review: rv, facts: facts, lock: lock, hub: newHub(), session: session, start: randomHex(), ln: ln,
		hosts: map[string]bool{},
	}
	_, port, _ := net.SplitHostPort(ln.Addr().String())
	for _, h := range []string{host, "127.0.0.1", "localhost", "[::1]"} {
		if !strings.Contains(h, ":") || strings.HasPrefix(h, "[") {
			s.hosts[h+":"+port] = true
		}
	}
	s.cookie = "jantel_" + port
	s.facts.Rebuilt = func(why string) {
		cfg.Log.Warn("the store of facts was damaged and made anew; codebases must be surveyed again", "why", why)
		s.changed(review.Happened{Part: review.PartSurveys, What: "facts"})
	}
	life, cancel := context.WithCancel(context.WithoutCancel(ctx))
	s.stop = cancel
	s.jobs = newJobs(life, s)
	s.shelf = newShelf(s)
	s.http = &http.Server{
		Handler: s.routes(), ReadHeaderTimeout: 10 * time.Second, IdleTimeout: 2 * time.Minute,
		BaseContext: func(net.Listener) context.Context { return life },
	}
	return s, nil
}

// URL is the address to open, with the token that lets its reader in.
func (s *Server) URL() string { return s.Base() + "/start?token=" + s.start }

// Base is the address without a token.
func (s *Server) Base() string {
	host, port, _ := net.SplitHostPort(s.ln.Addr().String())
	if strings.Contains(host, ":") {
		host = "[" + host + "]"
	}
	return "http://" + host + ":" + port
}

// Review gives the store of what people wrote.
func (s *Server) Review() *store.Review { return s.review }

// warmNewest gets the codebases that were surveyed last ready to be looked at,
// as many as are held at once.
func (s *Server) warmNewest(ctx context.Context) {
	list, err := s.review.Codebases(ctx)
	if err != nil {
		return
	}
	newest := []CodebaseStatus{}
	for _, c := range list {
		if st, err := s.status(ctx, c); err == nil && st.Latest > 0 {
			newest = append(newest, st)
		}
	}
	slices.SortFunc(newest, func(a, b CodebaseStatus) int { return cmp.Compare(b.Latest, a.Latest) })
	s.shelf.warm(newest[:min(len(newest), shelfSize)])
}

// Serve answers until the context ends, then lets running requests finish.
func (s *Server) Serve(ctx context.Context) error {
	done := make(chan error, 1)
	go func() { done <- s.http.Serve(s.ln) }()
	s.warmNewest(ctx)
	var err error
	select {
	case err = <-done:
	case <-ctx.Done():
	}
	s.jobs.stopAll()
	s.hub.close()
	shut, cancel := context.WithTimeout(context.Background(), 5*time.Second)
	defer cancel()
	if e := s.http.Shutdown(shut); e != nil {
		_ = s.http.Close()
	}
	s.stop()
	s.jobs.wait()
	if errors.Is(err, http.ErrServerClosed) {
		err = nil
	}
	return errors.Join(err, s.facts.Close(), s.review.Close(), s.lock.Release())
}

func randomHex() string {
	var b [16]byte
	if _, err := rand.Read(b[:]); err != nil {
		panic(err) // the system has no randomness: nothing can be safe
	}
	return hex.EncodeToString(b[:])
}

// secret reads or makes the session's secret, so that an open page still works
// after the server was started again.
func secret(p string) (string, error) {
	if b, err := os.ReadFile(p); err == nil && len(b) == 32 {
		return string(b), nil
	}
	v := randomHex()
	if err := os.WriteFile(p, []byte(v), 0o600); err != nil {
		return "", fmt.Errorf("the session's secret can not be kept: %w", err)
	}
	return v, nil
}

func (s *Server) routes() http.Handler {
	r := chi.NewRouter()
	r.Use(s.logged, middleware.Recoverer, s.guard)
	r.Use(middleware.Compress(
		5, "text/html", "text/css", "text/javascript", "application/javascript", "application/json",
		"application/problem+json", "image/svg+xml",
	))
	r.Get("/start", s.startSession)
	r.Group(func(r chi.Router) {
		r.Use(s.signedIn)
		s.api(r)
		r.Get("/api/events", s.events)
		r.Get("/api/codebases/{id}/search", s.search)
		r.Post("/api/uploads", s.upload)
		r.Get("/api/codebases/{id}/export/{file}", s.export)
		r.Get("/api/codebases/{id}/picture/{file}", s.picture)
		r.Get("/api/codebases/{id}/page/{file}", s.pageFile)
		r.Get("/api/charter.schema.json", func(w http.ResponseWriter, _ *http.Request) {
			w.Header().Set("Content-Type", "application/schema+json")
			_, _ = w.Write(charter.Schema)
		})
	})
	r.NotFound(s.page)
	return r
}

// OpenAPI writes the description of the API without starting a server.
func OpenAPI() ([]byte, error) {
	s := &Server{hub: newHub()}
	r := chi.NewRouter()
	return s.api(r).OpenAPI().MarshalJSON()
}

func (s *Server) api(r chi.Router) huma.API {
	huma.DefaultArrayNullable = false // lists are empty, never null
	cfg := huma.DefaultConfig("Jantel", "1")
	cfg.OpenAPIPath = "/api/openapi"
	cfg.DocsPath, cfg.SchemasPath = "", ""
	cfg.CreateHooks = nil // no $schema links in answers
	cfg.Info.Description = "What Jantel reads in a codebase, what it makes of it, and the review of it."
	api := humachi.New(r, cfg)
	s.registerCodebases(api)
	s.registerViews(api)
	s.registerFindings(api)
	s.registerMarks(api)
	s.registerPages(api)
	s.registerBeside(api)
	// Events are no answers; their form is described with the rest.
	for _, sent := range []any{review.Happened{}, Progress{}} {
		api.OpenAPI().Components.Schemas.Schema(reflect.TypeOf(sent), true, "")
	}
	return api
}

// logged writes one structured line for each request of the API.
func (s *Server) logged(next http.Handler) http.Handler {
	return http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		ww := middleware.NewWrapResponseWriter(w, r.ProtoMajor)
		began := time.Now()
		next.ServeHTTP(ww, r)
		if strings.HasPrefix(r.URL.Path, "/api/") {
			s.cfg.Log.Info(
				"request", "method", r.Method, "path", r.URL.Path, "status", ww.Status(), "bytes", ww.BytesWritten(),
				"ms", time.Since(began).Milliseconds(),
			)
		}
	})
}

// guard refuses what other sites could make a browser send: the Host must be
// ours to the letter, and whatever changes anything must come from our own
// pages as JSON (uploads: as a byte stream), neither of which a foreign form
// can do.
func (s *Server) guard(next http.Handler) http.Handler {
	return http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		h := w.Header()
		h.Set("X-Content-Type-Options", "nosniff")
		h.Set("Referrer-Policy", "no-referrer")
		h.Set("X-Frame-Options", "DENY")
		h.Set("Cross-Origin-Opener-Policy", "same-origin")
		h.Set("Cross-Origin-Resource-Policy", "same-origin")
		h.Set("Content-Security-Policy", "default-src 'none'; frame-ancestors 'none'")
		if !s.hosts[r.Host] {
			problem(w, http.StatusForbidden, "this server answers only to its own address")
			return
		}
		switch r.Method {
		case http.MethodGet, http.MethodHead:
		case http.MethodPost, http.MethodPut, http.MethodPatch, http.MethodDelete:
			if r.Header.Get("Origin") != "http://"+r.Host {
				problem(w, http.StatusForbidden, "the Origin of a change must be this server's own address")
				return
			}
			ct, _, _ := strings.Cut(r.Header.Get("Content-Type"), ";")
			want := "application/json"
			if r.URL.Path == "/api/uploads" || r.Method == http.MethodPost && strings.HasSuffix(r.URL.Path, "/pictures") {
				want = "application/octet-stream"
			}
			if ct != want {
				problem(w, http.StatusUnsupportedMediaType, "a change is sent as "+want)
				return
			}
		default:
			problem(w, http.StatusMethodNotAllowed, "this method is not used here")
			return
		}
		next.ServeHTTP(w, r)
	})
}

func (s *Server) signedIn(next http.Handler) http.Handler {
	return http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		if c, err := r.Cookie(s.cookie); err != nil || !same(c.Value, s.session) {
			problem(w, http.StatusUnauthorized, "open the address that the server printed when it started; it lets this browser in")
			return
		}
		w.Header().Set("Cache-Control", "private, no-cache")
		next.ServeHTTP(w, r.WithContext(actingAs(r.Context(), "")))
	})
}

type actorKey struct{}

// actingAs notes who asks. A session lets a browser in and does not tell its
// people apart yet; the name under which something is changed comes with the
// change.
func actingAs(ctx context.Context, a review.Actor) context.Context {
	return context.WithValue(ctx, actorKey{}, a)
}

// actorOf is who asks; what the server begins by itself is asked by nobody.
func actorOf(ctx context.Context) review.Actor {
	a, _ := ctx.Value(actorKey{}).(review.Actor)
	return a
}

func (s *Server) startSession(w http.ResponseWriter, r *http.Request) {
	if !same(r.URL.Query().Get("token"), s.start) {
		problem(w, http.StatusUnauthorized, "this token is not the one that the server printed when it last started")
		return
	}
	http.SetCookie(w, &http.Cookie{
		Name: s.cookie, Value: s.session, Path: "/", HttpOnly: true, SameSite: http.SameSiteStrictMode,
		MaxAge: 90 * 24 * 3600,
	})
	to := r.URL.Query().Get("to")
	if !strings.HasPrefix(to, "/") || strings.HasPrefix(to, "//") || strings.Contains(to, "\\") {
		to = "/"
	}
	http.Redirect(w, r, to, http.StatusSeeOther)
}

// problem answers with RFC 9457 problem details.
func problem(w http.ResponseWriter, status int, detail string) {
	w.Header().Set("Content-Type", "application/problem+json")
	w.WriteHeader(status)
	_, _ = fmt.Fprintf(w, "{\"title\":%q,\"status\":%d,\"detail\":%s}\n", http.StatusText(status), status, quoted(detail))
}

// failure turns an error of the core or the stores into a problem.
func failure(err error) error {
	var c *review.Conflict
	switch {
	case err == nil:
		return nil
	case errors.As(err, &c):
		return &conflict{
			ErrorModel: huma.ErrorModel{Status: http.StatusPreconditionFailed, Title: "Precondition Failed", Detail: err.Error()},
			Current:    c.Current,
		}
	case errors.Is(err, store.ErrStale):
		return huma.Error412PreconditionFailed(err.Error())
	case errors.Is(err, review.ErrNotFound):
		return huma.Error404NotFound(err.Error())
	case errors.Is(err, review.ErrInvalid):
		return huma.Error422UnprocessableEntity(err.Error())
	case store.Busy(err):
		return huma.ErrorWithHeaders(
			huma.Error503ServiceUnavailable("another program is writing to the data; nothing was changed. Try again in a moment"),
			http.Header{"Retry-After": {"2"}},
		)
	case errors.Is(err, context.Canceled):
		return huma.NewError(499, "the request was given up")
	case strings.Contains(err.Error(), "disk is full"), strings.Contains(err.Error(), "no space left"):
		return huma.NewError(http.StatusInsufficientStorage, "the disk is full; nothing was changed. Make room and send it again")
	}
	return huma.Error500InternalServerError(err.Error())
}

// conflict tells the second writer what the first made of a finding.
type conflict struct {
	huma.ErrorModel
	Current review.Finding `json:"current"`
}

// once guards values that are made on first use.
type once[T any] struct {
	o   sync.Once
	v   T
	err error
}

func (o *once[T]) get(fn func() (T, error)) (T, error) {
	o.o.Do(func() { o.v, o.err = fn() })
	return o.v, o.err
}
