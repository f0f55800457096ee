// Package server is the web application's server: the API, the built pages, health
// and logs. Handlers decode, call the core or the store, and encode.
package server

import (
	"compress/gzip"
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"io/fs"
	"log/slog"
	"mime"
	"net"
	"net/http"
	"net/url"
	"path"
	"strings"
	"time"
	"unicode/utf8"

	"github.com/labstack/echo/v5"
	"github.com/labstack/echo/v5/middleware"

	"epitrope/internal/door"
	"epitrope/internal/schema"
	"epitrope/internal/store"
)

// isAnswer says whether an answer is one of the API that is packed; a stream is sent as it comes.
func isAnswer(c *echo.Context) bool { return isAPI(c) && c.Request().URL.Path != eventsPath }

func isAPI(c *echo.Context) bool { return strings.HasPrefix(c.Request().URL.Path, "/api/") }

// isPage says whether an answer is a part of the pages that is not packed yet.
func isPage(c *echo.Context) bool {
	return !isAPI(c) && !strings.HasSuffix(c.Request().URL.Path, ".wasm")
}

// packed compresses some answers at a level of gzip.
func packed(level int, which func(c *echo.Context) bool) echo.MiddlewareFunc {
	return middleware.GzipWithConfig(middleware.GzipConfig{Level: level, Skipper: func(c *echo.Context) bool { return !which(c) }})
}

// New builds the server on a store and the built pages, with the door that people come in by; busy learns when somebody asks for
// something.
func New(s *store.Store, pages fs.FS, busy *Busy, way Way, d *door.Door) *echo.Echo {
	e := echo.New()
	e.Logger = slog.Default()
	e.IPExtractor = way.realIP()
	e.HTTPErrorHandler = handleError
	// What is computed for a key is packed fast, what is loaded once is packed well.
	e.Use(middleware.Recover(), busy.see, logRequests(), way.ours, onlyText, way.safeHeaders, packed(gzip.BestSpeed, isAnswer),
		packed(gzip.DefaultCompression, isPage))

	mux := http.NewServeMux()
	newAPI(s, d, way, mux)
	mux.HandleFunc("/api/", func(w http.ResponseWriter, r *http.Request) {
		writeProblem(w, problem(http.StatusNotFound, "about:blank", fmt.Sprintf("%s %s is not in the API; see /api/openapi.json", r.Method,
			r.URL.Path)))
	})
	mux.HandleFunc("GET /api/schema/{what}", serveSchema)
	origins := http.NewCrossOriginProtection()
	origins.SetDenyHandler(http.HandlerFunc(func(w http.ResponseWriter, _ *http.Request) {
		writeProblem(w, problem(http.StatusForbidden, "about:blank", "This asks from another page; only Epitrope's own pages may."))
	}))
	e.Any("/api/*", echo.WrapHandler(origins.Handler(mux)))

	e.GET("/health/live", func(c *echo.Context) error { return c.JSON(http.StatusOK, map[string]string{"status": "live"}) })
	e.GET("/health/ready", func(c *echo.Context) error {
		ctx, cancel := context.WithTimeout(c.Request().Context(), 2*time.Second)
		defer cancel()
		if err := s.Ping(ctx); err != nil {
			return answer(err)
		}
		return c.JSON(http.StatusOK, map[string]string{"status": "ready"})
	})
	e.GET("/*", servePages(pages))
	return e
}

// OpenAPI is the API's document.
func OpenAPI() ([]byte, error) {
	doc, err := json.MarshalIndent(newAPI(nil, nil, Way{}, http.NewServeMux()).OpenAPI(), "", "  ")
	return append(doc, '\n'), err
}

func serveSchema(w http.ResponseWriter, r *http.Request) {
	s, err := schema.Named(r.PathValue("what"))
	if err != nil {
		writeProblem(w, problem(http.StatusNotFound, "about:blank", err.Error()))
		return
	}
	w.Header().Set("Content-Type", "application/schema+json")
	_ = json.NewEncoder(w).Encode(s) // the connection may be gone
}

func logRequests() echo.MiddlewareFunc {
	return middleware.RequestLoggerWithConfig(middleware.RequestLoggerConfig{
		LogStatus: true, LogMethod: true, LogURIPath: true, LogLatency: true, HandleError: true,
		LogValuesFunc: func(_ *echo.Context, v middleware.RequestLoggerValues) error {
			slog.Info("request", "method", v.Method, "path", v.URIPath, "status", v.Status, "ms", v.Latency.Milliseconds())
			return nil
		},
	})
}

// onlyText refuses addresses that are no text: nothing has such a name.
func onlyText(next echo.HandlerFunc) echo.HandlerFunc {
	return func(c *echo.Context) error {
		u := c.Request().URL
		query, err := url.QueryUnescape(u.RawQuery)
		if err != nil || !isText(u.Path) || !isText(query) {
			return problem(http.StatusBadRequest, "about:blank", "The address is not valid UTF-8 text.")
		}
		return next(c)
	}
}

func isText(s string) bool { return utf8.ValidString(s) && !strings.ContainsRune(s, 0) }

// safeHeaders forbid anything from elsewhere: nothing is fetched at run time.
func (w Way) safeHeaders(next echo.HandlerFunc) echo.HandlerFunc {
	return func(c *echo.Context) error {
		h := c.Response().Header()
		h.Set("Content-Security-Policy",
			"default-src 'self'; script-src 'self' 'wasm-unsafe-eval'; style-src 'self' 'unsafe-inline'; img-src 'self' data: blob:; "+
				"frame-ancestors 'none'; base-uri 'none'; form-action 'self'; object-src 'none'")
		h.Set("X-Content-Type-Options", "nosniff")
		h.Set("Referrer-Policy", "no-referrer")
		h.Set("Cross-Origin-Opener-Policy", "same-origin")
		h.Set("Cross-Origin-Resource-Policy", "same-origin")
		h.Set("Permissions-Policy", "camera=(self), geolocation=(), microphone=(), payment=()")
		if isAPI(c) {
			h.Set("Cache-Control", "no-store")
		}
		if w.Public != nil || w.Network != nil {
			h.Set("Strict-Transport-Security", "max-age=31536000; includeSubDomains")
		}
		return next(c)
	}
}

// servePages serves the built application; addresses of its own open its shell.
func servePages(pages fs.FS) echo.HandlerFunc {
	files := http.FileServerFS(pages)
	return func(c *echo.Context) error {
		r, w := c.Request(), c.Response()
		name := strings.TrimPrefix(r.URL.Path, "/")
		if strings.HasPrefix(name, "assets/") {
			w.Header().Set("Cache-Control", "public, max-age=31536000, immutable")
		} else {
			w.Header().Set("Cache-Control", "no-cache")
		}
		if info, err := fs.Stat(pages, name); name != "" && err == nil && !info.IsDir() {
			files.ServeHTTP(w, r)
			return nil
		}
		if info, err := fs.Stat(pages, name+".br"); name != "" && err == nil && !info.IsDir() {
			return servePacked(c, pages, name)
		}
		if strings.Contains(name, ".") {
			return problem(http.StatusNotFound, "about:blank", "There is no such file.")
		}
		shell, err := fs.ReadFile(pages, "index.html")
		if err != nil {
			return problem(http.StatusNotFound, "about:blank", "The web application is not built; run make build.")
		}
		return c.HTMLBlob(http.StatusOK, shell)
	}
}

// servePacked serves a file that is kept packed, to whoever can unpack it: every browser does, over TLS and on this machine.
func servePacked(c *echo.Context, pages fs.FS, name string) error {
	r, h := c.Request(), c.Response().Header()
	h.Set("Vary", "Accept-Encoding")
	if !strings.Contains(r.Header.Get("Accept-Encoding"), "br") {
		return problem(http.StatusNotAcceptable, "about:blank", "This file is kept packed; ask for it with Accept-Encoding: br.")
	}
	data, err := fs.ReadFile(pages, name+".br")
	if err != nil {
		return err
	}
	h.Set("Content-Encoding", "br")
	return c.Blob(http.StatusOK, mime.TypeByExtension(path.Ext(name)), data)
}

// handleError answers what Echo itself refuses as a problem document.
func handleError(c *echo.Context, err error) {
	if r, unwrapErr := echo.UnwrapResponse(c.Response()); unwrapErr == nil && r.Committed {
		return
	}
	var p *Refusal
	var coded echo.HTTPStatusCoder
	switch {
	case errors.As(err, &p):
	case errors.As(err, &coded) && coded.StatusCode() < http.StatusInternalServerError:
		p = problem(coded.StatusCode(), "about:blank", fmt.Sprintf("%s %s: %s", c.Request().Method, c.Request().URL.Path,
			http.StatusText(coded.StatusCode())))
	default:
		slog.Error("request failed", "path", c.Request().URL.Path, "error", err)
		p = problem(http.StatusInternalServerError, "about:blank", "Something went wrong on the server; nothing typed is lost.")
	}
	writeProblem(c.Response(), p)
}

func writeProblem(w http.ResponseWriter, p *Refusal) {
	w.Header().Set("Content-Type", "application/problem+json")
	w.WriteHeader(p.Status)
	_ = json.NewEncoder(w).Encode(p) // the connection may be gone
}

// Serve answers on listener until ctx ends, then lets running requests finish.
func Serve(ctx context.Context, e *echo.Echo, listener net.Listener) error {
	start := echo.StartConfig{Listener: listener, HideBanner: true, HidePort: true, GracefulTimeout: 10 * time.Second,
		BeforeServeFunc: func(s *http.Server) error {
			s.BaseContext = func(net.Listener) context.Context { return context.WithValue(context.Background(), leavingKey{}, ctx) }
			return nil
		}}
	if err := start.Start(ctx, e); err != nil && !errors.Is(err, http.ErrServerClosed) {
		return err
	}
	slog.Info("stopped")
	return nil
}
