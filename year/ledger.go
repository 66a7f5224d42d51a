package year

import (
	"fmt"
	"io"
	"maps"
	"slices"
	"strings"
)

// A Rule is one thing that must hold, with how often it was looked at and how often it did
// not.
type Rule struct {
	Key      string
	Says     string
	Checked  int
	Broken   int
	Examples []string // the first breaks, ready to read
}

// A Ledger counts the rules of some lives.
type Ledger struct {
	Rules  []*Rule
	Range  float64 // footholds in the range that their first lesson told, by parts of a week
	Told   int     // of so many
	Figure map[string]float64
	Of     string // whose life: stands before what was seen
}

// examples is how many breaks of a rule are kept to be read.
const examples = 8

func (l *Ledger) rule(key string) *Rule {
	i := slices.IndexFunc(l.Rules, func(r *Rule) bool { return r.Key == key })
	if i < 0 {
		i = len(l.Rules)
		l.Rules = append(l.Rules, &Rule{Key: key, Says: says[key]})
	}
	return l.Rules[i]
}

// hold counts a check of a rule; where it is broken, what was seen.
func (l *Ledger) hold(key string, ok bool, seen func() string) {
	r := l.rule(key)
	r.Checked++
	if !ok {
		r.Broken++
		if len(r.Examples) < examples {
			r.Examples = append(r.Examples, l.Of+seen())
		}
	}
}

// Add joins another ledger to this one.
func (l *Ledger) Add(o Ledger) {
	for _, r := range o.Rules {
		mine := l.rule(r.Key)
		mine.Checked += r.Checked
		mine.Broken += r.Broken
		mine.Examples = append(mine.Examples, r.Examples[:min(len(r.Examples), examples-min(len(mine.Examples), examples))]...)
	}
	l.Range += o.Range
	l.Told += o.Told
	for k, v := range o.Figure {
		l.Count(k, v)
	}
}

// Count adds to a figure of what the lives brought.
func (l *Ledger) Count(key string, n float64) {
	if l.Figure == nil {
		l.Figure = map[string]float64{}
	}
	l.Figure[key] += n
}

// Print writes the table, rule by rule, with the first breaks of each.
func (l *Ledger) Print(w io.Writer) {
	slices.SortStableFunc(l.Rules, func(a, b *Rule) int { return strings.Compare(a.Key, b.Key) })
	fmt.Fprintf(w, "%-8s %8s %8s  %s\n", "rule", "checked", "broken", "what must hold")
	for _, r := range l.Rules {
		fmt.Fprintf(w, "%-8s %8d %8d  %s\n", r.Key, r.Checked, r.Broken, r.Says)
		for _, e := range r.Examples {
			fmt.Fprintf(w, "%28s %s\n", "", strings.ReplaceAll(e, "\n", "\n"+strings.Repeat(" ", 29)))
		}
	}
	if l.Told > 0 {
		fmt.Fprintf(w, "80 %% ranges told at the first lesson held for %.0f of %d footholds: %.0f %%\n", l.Range, l.Told, 100*l.Range/float64(l.Told))
	}
	for _, k := range slices.Sorted(maps.Keys(l.Figure)) {
		fmt.Fprintf(w, "%-40s %10.1f\n", k, l.Figure[k])
	}
}
