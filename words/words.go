// Package words says in a reader's language what core gives as codes and arguments.
//
// There is one catalogue a language, a file of messages: British English is the base, and another
// English names only what it says otherwise. Messages are templates with named arguments; numbers
// choose their form by the plural rules of Unicode (CLDR), dates and notes are written as the
// language writes them.
package words

import (
	"embed"
	"fmt"
	"log/slog"
	"slices"
	"strconv"
	"strings"
	"sync"

	"github.com/BurntSushi/toml"
	"github.com/nicksnyder/go-i18n/v2/i18n"
	"golang.org/x/text/language"

	"patientladder/core/activity"
	"patientladder/core/calendar"
	"patientladder/core/instrument"
	"patientladder/core/reason"
	"patientladder/core/skill"
)

//go:embed *.toml
var catalogues embed.FS

// A Reader is what a text depends on beside its arguments.
type Reader struct {
	Language string // as BCP 47 names it, one of Languages
	Inches   bool   // lengths in inches, not centimetres
}

// ReaderOf is who reads a language, with the lengths that are usual there.
func ReaderOf(language string) Reader { return Reader{language, language == "en-US"} }

// Base is the language that every other falls back to.
const Base = "en-GB"

// Languages are those that texts are written in, the base first.
var Languages = []string{Base, "en-US"}

// Words are the texts of one kind of reader. They may be used by several goroutines.
type Words struct {
	reader    Reader
	localizer *i18n.Localizer
	reading   *parsing
	keys      map[string]bool

	skills      map[string]skill.Graph // by where they are said
	games       []activity.Activity
	instruments instrument.Set
	naming      sync.Mutex
	around      func(string) string // what a test puts around every text
}

var (
	made   = map[Reader]*Words{}
	making sync.Mutex
)

// In returns the words of a reader; those of the base where the language is not known.
func In(r Reader) *Words {
	if !slices.Contains(Languages, r.Language) && r.Language != pseudo {
		r.Language = Base
	}
	making.Lock()
	defer making.Unlock()
	if w := made[r]; w != nil {
		return w
	}
	w, err := load(r)
	if err != nil {
		panic(err) // the catalogues are part of the program, and every one is read by a test
	}
	made[r] = w
	return w
}

func load(r Reader) (*Words, error) {
	files := []string{Base}
	if r.Language != Base && r.Language != pseudo {
		files = append(files, r.Language)
	}
	tag := language.Make(r.Language)
	bundle, keys := i18n.NewBundle(tag), map[string]bool{}
	for _, name := range files {
		text, err := catalogues.ReadFile(name + ".toml")
		if err != nil {
			return nil, err
		}
		file, err := i18n.ParseMessageFileBytes(text, name+".toml", map[string]i18n.UnmarshalFunc{"toml": toml.Unmarshal})
		if err != nil {
			return nil, fmt.Errorf("%s: %w", name, err)
		}
		for _, m := range file.Messages {
			keys[m.ID] = true
		}
		// what another English says otherwise takes the place of the base's message
		if err := bundle.AddMessages(tag, file.Messages...); err != nil {
			return nil, fmt.Errorf("%s: %w", name, err)
		}
	}
	w := &Words{reader: r, keys: keys, localizer: i18n.NewLocalizer(bundle, tag.String()), around: func(s string) string { return s }}
	if r.Language == pseudo {
		w.around = bracketed
	}
	w.reading = &parsing{w.functions()}
	return w, nil
}

// Preferred is the language of the program that suits a browser best, by its Accept-Language header.
func Preferred(header string) string {
	var tags []language.Tag
	for _, l := range Languages {
		tags = append(tags, language.Make(l))
	}
	asked, _, err := language.ParseAcceptLanguage(header)
	if err != nil {
		return Base
	}
	_, i, _ := language.NewMatcher(tags).Match(asked...)
	return Languages[i]
}

// Args are the arguments of a message by name.
type Args = map[string]string

// Language is the language of the words, as BCP 47 names it.
func (w *Words) Language() string { return w.reader.Language }

// Text is a message with its arguments. One that no catalogue has is a mistake of the program: it is
// logged, and its key stands in its place.
func (w *Words) Text(key string, args Args) string {
	text, err := w.find(key, nil, args)
	if err != nil {
		slog.Error("a text is missing", "key", key, "cause", err)
		return key
	}
	return w.around(text)
}

// Reason is a reason as a teacher is told it; one that only sheets give, as it stands there; empty for
// the empty reason.
func (w *Words) Reason(r reason.Reason) string {
	if r.Code == "" {
		return ""
	}
	key := "reason." + r.Code
	if !w.keys[key] {
		key = "sheet." + r.Code
	}
	return w.Text(key, r.Args)
}

// Label is a text that stands by itself; empty for the empty label.
func (w *Words) Label(l reason.Label) string {
	if l.Key == "" {
		return ""
	}
	return w.Text(l.Key, l.Args)
}

// For is a message in the words of one reader of a sheet (parent, student, adult), or in those of
// everybody where that reader has none.
func (w *Words) For(reader, key string, args Args) string {
	if own := key + "@" + reader; w.keys[own] {
		key = own
	} else if code, sheet := strings.CutPrefix(key, "sheet."); sheet && !w.keys[key] {
		key = "reason." + code // it is said at home as to the teacher
	}
	return w.Text(key, args)
}

// find renders a message; count, where there is one, chooses its form.
func (w *Words) find(key string, count any, args Args) (string, error) {
	return w.localizer.Localize(&i18n.LocalizeConfig{MessageID: key, PluralCount: count, TemplateData: args, TemplateParser: w.reading})
}

// counted is a number with its noun, as 3 weeks.
func (w *Words) counted(noun, n string) (string, error) {
	return w.find("count."+noun, n, Args{"n": n})
}

// Count is a number with its noun.
func (w *Words) Count(noun string, n int) string {
	text, err := w.counted(noun, strconv.Itoa(n))
	if err != nil {
		slog.Error("a text is missing", "key", "count."+noun, "cause", err)
	}
	return w.around(text)
}

// List writes some things as a sentence does; of many the first, and how many more there are.
func (w *Words) List(things []string, most int) string {
	rest := len(things) - most
	last := ""
	switch {
	case rest > 0:
		things, last = things[:most], w.more(rest)
	case len(things) == 0:
		return ""
	case len(things) > 1:
		things, last = things[:len(things)-1], things[len(things)-1]
	}
	out := things[0]
	for _, t := range things[1:] {
		out = w.joined("comma", out, t)
	}
	if last != "" {
		out = w.joined("and", out, last)
	}
	return out
}

func (w *Words) joined(how, a, b string) string {
	text, err := w.find("list."+how, nil, Args{"a": a, "b": b})
	if err != nil {
		return a + ", " + b
	}
	return text
}

func (w *Words) more(n int) string {
	text, err := w.counted("more", strconv.Itoa(n))
	if err != nil {
		return strconv.Itoa(n)
	}
	return text
}

// Day writes a day with its weekday.
func (w *Words) Day(d calendar.Date) string { return w.written("full", d) }

// ShortDay writes a day where there is little room.
func (w *Words) ShortDay(d calendar.Date) string { return w.written("narrow", d) }

// Month writes the month of a day, with its year.
func (w *Words) Month(d calendar.Date) string { return w.written("month", d) }

func (w *Words) written(way string, d calendar.Date) string {
	text, err := w.date(way, string(d))
	if err != nil {
		return string(d)
	}
	return w.around(text)
}

// Word is one of a fixed list of words, such as the parts of a lesson; what is not on the list stands
// as it is.
func (w *Words) Word(list, value string) string {
	return w.around(w.plainWord(list, value))
}

// pseudo is a language of the tests: English, in brackets and a third longer, so that a text which
// no catalogue holds, or which no place has room for, can be seen.
const pseudo = "en-XA"

// Pseudo returns the words of the tests' language.
func Pseudo() *Words { return In(Reader{Language: pseudo}) }

func bracketed(s string) string {
	longer := strings.Repeat("~", (len([]rune(s))+2)/3)
	return "⟦" + s + strings.ReplaceAll(longer, "~~~~~~", "~~~~~ ") + "⟧"
}
