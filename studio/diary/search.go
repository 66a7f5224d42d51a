package diary

import (
	"context"
	"encoding/json"
	"errors"
	"slices"
	"strings"
	"unicode"

	"golang.org/x/text/runes"
	"golang.org/x/text/transform"
	"golang.org/x/text/unicode/norm"

	"patientladder/core/calendar"
	"patientladder/core/fact"
	"patientladder/core/ladder"
	"patientladder/studio"
	"patientladder/studio/library"
)

// A Hit is something that was sought, and where it is.
type Hit struct {
	Kind    string        `json:"kind" enum:"piece,skill,note,sheet"`
	Title   string        `json:"title"`
	Says    string        `json:"says" doc:"whose, of what book, or the words around what was sought"`
	Item    string        `json:"item,omitempty"`
	Skill   string        `json:"skill,omitempty"`
	Student string        `json:"student,omitempty"`
	Day     calendar.Date `json:"day,omitempty" doc:"on which it was told, or of the lesson that gave it"`
}

// A SearchView is what was found.
type SearchView struct {
	Hits []Hit `json:"hits" doc:"of each kind the best first: pieces, notes, sheets, skills"`
}

// mostHits is how many of a kind are told.
const mostHits = 8

// Search finds pieces, skills, notes and sheets by words, whichever way they are accented;
// a word may be cut short. Students and places are at hand where it is asked.
func Search(ctx context.Context, a *studio.App, who studio.Who, sought string) (SearchView, error) {
	v := SearchView{Hits: []Hit{}}
	words := plainWords(sought)
	if len(words) == 0 {
		return v, nil
	}
	r, items, err := library.Shelved(ctx, a, who)
	if err != nil {
		return v, err
	}
	students, err1 := r.Students(ctx)
	written, err2 := r.FactsSaying(ctx, words)
	retractions, err3 := r.FactsOf(ctx)
	sheets, err4 := r.SheetsSaying(ctx, words, 10*mostHits)
	if err := errors.Join(err1, err2, err3, err4); err != nil {
		return v, studio.Failed(err, "studio")
	}
	names := map[string]string{}
	for _, st := range students {
		names[st.ID] = st.Name()
	}
	add := func(hits []Hit) { v.Hits = append(v.Hits, hits[:min(len(hits), mostHits)]...) }

	var pieces []Hit
	for _, it := range library.Shown(items) {
		if holds(it.Title+" "+it.Composer+" "+it.Book, words) {
			pieces = append(pieces, Hit{Kind: "piece", Title: it.Title, Says: it.Book, Item: it.ID})
		}
	}
	slices.SortStableFunc(pieces, func(a, b Hit) int { return firstWord(a.Title, words) - firstWord(b.Title, words) })
	add(pieces)

	var notes []Hit
	back := ladder.TakenBack(retractions)
	for _, f := range written {
		text := textOf(f.Body)
		if _, gone := back[f.ID]; gone || !holds(text, words) {
			continue
		}
		notes = append(notes, Hit{Kind: "note", Title: names[f.Student], Says: text, Student: f.Student, Day: calendar.On(f.At.In(r.Zone))})
	}
	add(notes)

	var given []Hit
	for _, d := range sheets {
		var sum studio.SheetSummary
		if err := json.Unmarshal(d.Summary, &sum); err != nil {
			return v, err
		}
		i := slices.IndexFunc(sum.Lines, func(l studio.SheetLine) bool { return holds(l.Title+" "+l.Says, words) })
		if i < 0 || slices.ContainsFunc(given, func(h Hit) bool { return h.Student == d.Student && h.Day == d.Day }) {
			continue // the words of several lines, or another revision
		}
		given = append(given, Hit{Kind: "sheet", Title: names[d.Student], Says: sum.Lines[i].Title + ": " + sum.Lines[i].Says, Student: d.Student, Day: d.Day})
	}
	add(given)

	var skills []Hit
	for _, s := range r.Graph.Sorted() {
		if holds(s.Name, words) {
			skills = append(skills, Hit{Kind: "skill", Title: s.Name, Says: string(s.Family), Skill: s.ID})
		}
	}
	add(skills)
	return v, nil
}

// textOf is what a person wrote in a fact; empty where nobody wrote.
func textOf(b fact.Body) string {
	switch b := b.(type) {
	case fact.Noted:
		return b.Text
	case fact.WentWell:
		return b.Text
	case fact.QuestionAsked:
		return b.Text
	case fact.SheetNoted:
		return b.Text
	}
	return ""
}

// plainWords are the words of a text without accents, in small letters.
func plainWords(text string) []string {
	plain, _, err := transform.String(transform.Chain(norm.NFD, runes.Remove(runes.In(unicode.Mn)), norm.NFC), strings.ToLower(text))
	if err != nil {
		plain = strings.ToLower(text)
	}
	return strings.FieldsFunc(plain, func(r rune) bool { return !unicode.IsLetter(r) && !unicode.IsDigit(r) })
}

// holds reports whether each of some words begins one of a text.
func holds(text string, words []string) bool {
	has := plainWords(text)
	return !slices.ContainsFunc(words, func(w string) bool {
		return !slices.ContainsFunc(has, func(h string) bool { return strings.HasPrefix(h, w) })
	})
}

// firstWord is 0 of a text that begins with the first of some words, else 1.
func firstWord(text string, words []string) int {
	if has := plainWords(text); len(has) > 0 && strings.HasPrefix(has[0], words[0]) {
		return 0
	}
	return 1
}
