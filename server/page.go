package server

import (
	"bytes"
	"crypto/subtle"
	"embed"
	"encoding/json"
	"io/fs"
	"mime"
	"net/http"
	"path"
	"strings"
)

//go:embed all:web/dist
var web embed.FS

func same(a, b string) bool { return subtle.ConstantTimeCompare([]byte(a), []byte(b)) == 1 }

func quoted(s string) string {
	b, err := json.Marshal(s)
	if err != nil {
		return `""`
	}
	return string(b)
}

// page serves the interface: its built files by their hashed names, and the
// one page for every other path, since the interface routes by itself.
func (s *Server) page(w http.ResponseWriter, r *http.Request) {
	if strings.HasPrefix(r.URL.Path, "/api/") {
		problem(w, http.StatusNotFound, "there is nothing at this path of the API")
		return
	}
	if r.Method != http.MethodGet && r.Method != http.MethodHead {
		problem(w, http.StatusMethodNotAllowed, "pages are only read")
		return
	}
	dist, err := fs.Sub(web, "web/dist")
	if err != nil {
		problem(w, http.StatusInternalServerError, err.Error())
		return
	}
	name := strings.TrimPrefix(path.Clean("/"+r.URL.Path), "/")
	if strings.HasPrefix(name, "assets/") || name == "favicon.svg" {
		data, err := fs.ReadFile(dist, name)
		if err != nil {
			problem(w, http.StatusNotFound, "there is no such file; reload the page")
			return
		}
		w.Header().Set("Content-Type", mime.TypeByExtension(path.Ext(name)))
		w.Header().Set("Cache-Control", "public, max-age=31536000, immutable")
		_, _ = w.Write(data)
		return
	}
	data, err := fs.ReadFile(dist, "index.html")
	if err != nil {
		problem(w, http.StatusNotFound, "this program was built without its interface; run make build")
		return
	}
	nonce := randomHex()
	h := w.Header()
	h.Set("Content-Type", "text/html; charset=utf-8")
	h.Set("Cache-Control", "no-store")
	h.Set(
		"Content-Security-Policy",
		"default-src 'none'; script-src 'self'; style-src 'self' 'nonce-"+nonce+
			"'; font-src 'self'; img-src 'self' data:; connect-src 'self'; base-uri 'none'; form-action 'none'; frame-ancestors 'none'",
	)
	_, _ = w.Write(bytes.ReplaceAll(data, []byte("__NONCE__"), []byte(nonce)))
}
