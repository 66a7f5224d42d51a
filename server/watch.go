package server

import (
	"context"
	"net/http"
	"net/http/pprof"
	"slices"
	"strconv"
	"time"

	"github.com/danielgtaylor/huma/v2"
	"github.com/danielgtaylor/huma/v2/adapters/humagin"
	"github.com/prometheus/client_golang/prometheus"
	"github.com/prometheus/client_golang/prometheus/collectors"
	"github.com/prometheus/client_golang/prometheus/promhttp"

	"patientladder/store"
)

// A watch is what is to be watched of a copy of the program, as Prometheus reads it.
type watch struct {
	all      *prometheus.Registry
	requests *prometheus.CounterVec
	took     *prometheus.HistogramVec
}

func newWatch(s *store.Store) *watch {
	w := &watch{
		all:      prometheus.NewRegistry(),
		requests: prometheus.NewCounterVec(prometheus.CounterOpts{Name: "ladder_requests_total", Help: "Requests of the API that were answered, by operation and status."}, []string{"operation", "status"}),
		took: prometheus.NewHistogramVec(prometheus.HistogramOpts{Name: "ladder_request_seconds", Help: "How long they took.",
			Buckets: []float64{.002, .005, .01, .02, .05, .1, .2, .5, 1, 2, 5, 10, 25}}, []string{"operation"}),
	}
	w.all.MustRegister(w.requests, w.took, collectors.NewGoCollector(), collectors.NewProcessCollector(collectors.ProcessCollectorOpts{}))
	if s != nil {
		w.all.MustRegister(collectors.NewDBStatsCollector(s.DB(), "ladder"),
			prometheus.NewCounterFunc(prometheus.CounterOpts{Name: "ladder_begun_again_total", Help: "Changes that another writer cut short and that were begun again."}, func() float64 { return float64(s.BegunAgain()) }))
	}
	return w
}

// guarded are the operations that are told in the log, with who asked and what came of it: how one signs in, what
// opens a student's week to others, and what is deleted or taken along as a whole.
var guarded = []string{"sign-up", "confirm", "sign-in", "passkey-sign-in", "sign-out", "forgot", "reset", "set-email", "set-password", "end-devices", "keep-app", "drop-app", "keep-passkey", "drop-passkey",
	"make-link", "end-links", "make-feed", "erase-student", "export-student", "export-studio", "delete-studio"}

// refusals are answers that are told in the log whatever was asked for.
var refusals = []int{http.StatusUnauthorized, http.StatusForbidden, http.StatusTooManyRequests}

// watched counts and times each operation, and tells of what is guarded in the log.
func (s *Server) watched(ctx huma.Context, next func(huma.Context)) {
	start := time.Now()
	next(ctx)
	id := ctx.Operation().OperationID
	if slices.Contains(guarded, id) || slices.Contains(refusals, ctx.Status()) {
		s.log.Info("guarded", "operation", id, "status", ctx.Status(), "teacher", s.sessions.GetString(ctx.Context(), "teacher"), "from", humagin.Unwrap(ctx).ClientIP())
	}
	s.watch.requests.WithLabelValues(id, strconv.Itoa(ctx.Status())).Inc()
	s.watch.took.WithLabelValues(id).Observe(time.Since(start).Seconds())
}

// Metrics hands out what is to be watched, and what the program is busy with (net/http/pprof). It stands on an
// address of its own: what it tells is for whoever runs this copy.
func (s *Server) Metrics() http.Handler {
	mux := http.NewServeMux()
	mux.Handle("GET /metrics", promhttp.HandlerFor(s.watch.all, promhttp.HandlerOpts{}))
	mux.HandleFunc("GET /debug/pprof/", pprof.Index)
	mux.HandleFunc("GET /debug/pprof/profile", pprof.Profile)
	return mux
}

// health answers whether this copy reaches its database: what a balancer asks.
func (s *Server) health(st *store.Store) {
	huma.Register(s.api, huma.Operation{OperationID: "health", Method: http.MethodGet, Path: "/api/health", Summary: "Whether this copy of the program reaches its database", Metadata: map[string]any{public: true}, DefaultStatus: http.StatusNoContent},
		func(ctx context.Context, _ *none) (*none, error) {
			ctx, cancel := context.WithTimeout(ctx, 2*time.Second)
			defer cancel()
			if err := st.Reach(ctx); err != nil {
				return nil, huma.NewError(http.StatusServiceUnavailable, "The database cannot be reached just now.")
			}
			return nil, nil
		})
}
