package store

import (
	"context"
	"strings"
	"sync"

	"patientladder/core/fact"
)

// known keeps facts that others refer to, as they were read. A fact is never changed, so that one that is
// kept is right for ever, whichever copy of the program wrote it.
type known struct {
	mu   sync.RWMutex
	by   map[string]map[string]fact.Fact // by studio and id
	kept int
}

// mostFacts is how many are kept, of all studios together; past it all are read anew.
const mostFacts = 100_000

func (k *known) get(studio string, ids []string) (found map[string]fact.Fact, missing []string) {
	k.mu.RLock()
	defer k.mu.RUnlock()
	found = make(map[string]fact.Fact, len(ids))
	for _, id := range ids {
		if f, there := k.by[studio][id]; there {
			found[id] = f
		} else {
			missing = append(missing, id)
		}
	}
	return found, missing
}

func (k *known) put(studio string, list []fact.Fact) {
	k.mu.Lock()
	defer k.mu.Unlock()
	if k.by == nil || k.kept+len(list) > mostFacts {
		k.by, k.kept = map[string]map[string]fact.Fact{}, 0
	}
	mine := k.by[studio]
	if mine == nil {
		mine = map[string]fact.Fact{}
		k.by[studio] = mine
	}
	for _, f := range list {
		if _, there := mine[f.ID]; !there {
			k.kept++
		}
		mine[f.ID] = f
	}
}

// forget drops what is kept of a studio.
func (k *known) forget(studio string) {
	k.mu.Lock()
	defer k.mu.Unlock()
	k.kept -= len(k.by[studio])
	delete(k.by, studio)
}

// inOnce is how many ids one statement names.
const inOnce = 1000

// anyOf lists the places of some values in a statement, of which there is one at
// least, and the values.
func anyOf(values []string) (places string, args []any) {
	for _, v := range values {
		args = append(args, v)
	}
	return `(?` + strings.Repeat(`, ?`, len(values)-1) + `)`, args
}

// FactsNamed returns those of the studio's facts that some ids name, by id.
func (s Studio) FactsNamed(ctx context.Context, ids []string) (map[string]fact.Fact, error) {
	found, missing := s.known.get(s.id, ids)
	for len(missing) > 0 {
		some := missing[:min(inOnce, len(missing))]
		missing = missing[len(some):]
		among, args := anyOf(some)
		rows, err := s.db.QueryContext(ctx, `SELECT `+factColumns+` FROM facts WHERE studio_id = ? AND id IN `+among, append([]any{s.id}, args...)...)
		list, err := collect(rows, err, scanFact)
		if err != nil {
			return nil, err
		}
		s.known.put(s.id, list)
		for _, f := range list {
			found[f.ID] = f
		}
	}
	return found, nil
}
