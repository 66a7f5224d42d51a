package server

import (
	"io/fs"
	"net/http"
	"path"
	"regexp"
	"strings"
)

// static hands out the built front end. Files have brotli and gzip twins made
// by the build; names under assets/ hold a hash and may be kept for ever. Any
// other path is a place inside the app and gets its page.
func static(files fs.FS) http.Handler {
	return http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		if strings.HasPrefix(r.URL.Path, "/api/") {
			writeProblem(w, http.StatusNotFound, "There is nothing at this address of the API.")
			return
		}
		name := strings.TrimPrefix(path.Clean(r.URL.Path), "/")
		if info, err := fs.Stat(files, name); err != nil || info.IsDir() || strings.HasPrefix(path.Base(name), ".") {
			if strings.HasPrefix(name, "assets/") {
				http.NotFound(w, r)
				return
			}
			name = "index.html"
			if token, family := strings.CutPrefix(r.URL.Path, "/family/"); family {
				name = "family.html"
				if linkToken.MatchString(token) { // the week is fetched beside the page's script, not after it
					w.Header().Set("Link", "</api/family/"+token+">; rel=preload; as=fetch; crossorigin")
				}
			}
		}
		if strings.HasPrefix(name, "assets/") {
			w.Header().Set("Cache-Control", "public, max-age=31536000, immutable")
		} else {
			w.Header().Set("Cache-Control", "no-cache")
		}
		w.Header().Add("Vary", "Accept-Encoding")
		for _, c := range []struct{ coding, suffix string }{{"br", ".br"}, {"gzip", ".gz"}} {
			if !strings.Contains(r.Header.Get("Accept-Encoding"), c.coding) {
				continue
			}
			if _, err := fs.Stat(files, name+c.suffix); err == nil {
				w.Header().Set("Content-Encoding", c.coding)
				w.Header().Set("Content-Type", contentType(name))
				http.ServeFileFS(w, r, files, name+c.suffix)
				return
			}
		}
		if _, err := fs.Stat(files, name); err != nil {
			http.Error(w, "The front end is not built; run make build.", http.StatusNotFound)
			return
		}
		w.Header().Set("Content-Type", contentType(name))
		if path.Ext(name) == ".html" { // ServeFileFS would send its address to /
			page, err := fs.ReadFile(files, name)
			if err != nil {
				http.Error(w, "The front end cannot be read.", http.StatusInternalServerError)
				return
			}
			w.WriteHeader(http.StatusOK)
			_, _ = w.Write(page) // fails only when the browser is gone
			return
		}
		http.ServeFileFS(w, r, files, name)
	})
}

// linkToken is what a family link's token looks like.
var linkToken = regexp.MustCompile(`^[A-Za-z0-9_-]{43}(~[0-9A-Z]{26})?$`)

var types = map[string]string{
	".html": "text/html; charset=utf-8", ".js": "text/javascript; charset=utf-8", ".css": "text/css; charset=utf-8",
	".svg": "image/svg+xml", ".woff2": "font/woff2", ".wasm": "application/wasm", ".json": "application/json", ".png": "image/png",
}

func contentType(name string) string {
	if t, ok := types[path.Ext(name)]; ok {
		return t
	}
	return "application/octet-stream"
}
