package e2e

import (
	"context"
	"net/http"
	"net/http/httptest"
	"strings"
	"sync"
	"sync/atomic"
	"testing"

	"github.com/chromedp/cdproto/storage"
	"github.com/chromedp/chromedp"
	"github.com/stretchr/testify/require"
)

// A place is an address where one test's site stands after another's, with a browser profile
// that keeps what was compiled of the program's scripts: to compile them anew for each test
// would be half of the browser's work. Nothing else stays in the profile from test to test.
type place struct {
	*httptest.Server
	site  atomic.Pointer[http.Handler]
	tab   context.Context // of the profile, held open so that its process lives on
	asked bool            // the test that stands here has opened its profile
}

var (
	placing sync.Mutex
	free    []*place
	taken   = map[string]*place{} // by URL
)

// stand takes a place for a test, which gives it back when it ends.
func stand(t testing.TB, site http.Handler) *place {
	placing.Lock()
	defer placing.Unlock()
	var p *place
	if n := len(free); n > 0 {
		p, free = free[n-1], free[:n-1]
	} else {
		p = &place{}
		p.Server = httptest.NewServer(http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) { (*p.site.Load()).ServeHTTP(w, r) }))
	}
	p.site.Store(&site)
	p.asked = false
	taken[p.URL] = p
	t.Cleanup(func() {
		placing.Lock()
		defer placing.Unlock()
		delete(taken, p.URL)
		free = append(free, p)
	})
	return p
}

// profile is the context of a new tab's profile: for the first page of a site the profile of its
// place, swept; for each further one, and for other programs, a new one.
func profile(t testing.TB, base string) (context.Context, []chromedp.ContextOption) {
	placing.Lock()
	p := taken[base]
	first := p != nil && !p.asked
	if first {
		p.asked = true
	}
	placing.Unlock()
	if !first {
		return browser, []chromedp.ContextOption{chromedp.WithNewBrowserContext()}
	}
	if p.tab == nil {
		p.tab, _ = chromedp.NewContext(browser, chromedp.WithNewBrowserContext()) // ends with the browser
		require.NoError(t, chromedp.Do(p.tab, chromedp.Navigate(p.URL+"/mark.svg")))
	}
	_, err := chromedp.Call(p.tab, storage.ClearDataForOrigin, storage.ClearDataForOriginParams{Origin: strings.TrimSuffix(p.URL, "/"), StorageTypes: "all"})
	require.NoError(t, err)
	return p.tab, nil
}
