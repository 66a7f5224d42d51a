package words

import (
	"strconv"
	"strings"
	"text/template"
	"time"

	i18ntemplate "github.com/nicksnyder/go-i18n/v2/i18n/template"

	"patientladder/core/calendar"
)

// functions are what a message may call.
func (w *Words) functions() template.FuncMap {
	return template.FuncMap{
		"count":       w.counted,
		"say":         func(key string, args Args) (string, error) { return w.find(key, nil, args) },
		"word":        w.plainWord,
		"words":       func(list, values string) string { return w.plainWords(list, values, "; ") },
		"commas":      func(list, values string) string { return w.plainWords(list, values, ", ") },
		"spaced":      func(list, values string) string { return w.plainWords(list, values, " ") },
		"place":       func(place string) (string, error) { return w.numbered("place", place) },
		"finger":      w.finger,
		"fingerboard": func(place string) (string, error) { return w.numbered("fingerboard", place) },
		"day":         func(on string) (string, error) { return w.date("full", on) },
		"date":        func(on string) (string, error) { return w.date("long", on) },
		"short":       func(on string) (string, error) { return w.date("short", on) },
		"on":          w.on,
		"bars":        w.bars,
		"hours":       w.hours,
		"length":      w.length,
		"note":        w.note,
		"notes":       w.notes,
		"inBars":      w.notesInBars,
		"key":         w.key,
		"keys":        w.severalKeys,
	}
}

func (w *Words) plainWord(list, value string) string {
	key := list + "." + value
	if !w.keys[key] {
		return value
	}
	text, err := w.find(key, nil, nil)
	if err != nil {
		return value
	}
	return text
}

// plainWords writes several words of a list, given as rests,ties.
func (w *Words) plainWords(list, values, between string) string {
	var out []string
	for _, value := range strings.Split(values, ",") {
		out = append(out, w.plainWord(list, value))
	}
	return strings.Join(out, between)
}

// numbered writes a word of a list with a number or note in it, given as open 3.
func (w *Words) numbered(list, value string) (string, error) {
	word, n, _ := strings.Cut(value, " ")
	if !w.keys[list+"."+word] {
		return value, nil
	}
	return w.find(list+"."+word, nil, Args{"n": n})
}

// finger names a finger, as right-2 or p; one that has no name, as it is written.
func (w *Words) finger(code string) (string, error) {
	if own := "finger." + code; w.keys[own] {
		return w.find(own, nil, nil)
	}
	return w.find("finger.another", nil, Args{"n": code[strings.LastIndex(code, "-")+1:]})
}

// date writes a day such as 2026-11-18 in one of the ways of the language.
func (w *Words) date(way, on string) (string, error) {
	t := calendar.Date(on).Time()
	month := strconv.Itoa(int(t.Month()))
	return w.find("date."+way, nil, Args{
		"weekday": w.plainWord("weekday", t.Weekday().String()), "day": strconv.Itoa(t.Day()),
		"month": w.plainWord("month", month), "mon": w.plainWord("mon", month), "wday": w.plainWord("wday", t.Weekday().String()), "year": strconv.Itoa(t.Year()),
	})
}

// on writes a weekday that comes again and again, or a date.
func (w *Words) on(day string) (string, error) {
	if _, err := time.Parse(time.DateOnly, day); err == nil {
		return w.date("long", day)
	}
	return w.plainWord("each", day), nil
}

// bars writes the numbers of bars with their noun.
func (w *Words) bars(list string) (string, error) {
	form := "bars.several"
	if _, err := strconv.Atoi(list); err == nil {
		form = "bars.single"
	}
	return w.find(form, nil, Args{"bars": list})
}

// hours writes minutes as hours, to a tenth.
func (w *Words) hours(minutes string) (string, error) {
	n, err := strconv.Atoi(minutes)
	if err != nil {
		return "", err
	}
	return w.counted("hour", strconv.FormatFloat(float64((n+3)/6)/10, 'f', -1, 64))
}

// perInch is how many centimetres an inch has, by definition.
const perInch = 2.54

// length writes centimetres in the reader's unit, to a tenth.
func (w *Words) length(cm string) (string, error) {
	n, err := strconv.ParseFloat(cm, 64)
	if err != nil {
		return "", err
	}
	unit := "length.cm"
	if w.reader.Inches {
		n, unit = n/perInch, "length.in"
	}
	return w.find(unit, nil, Args{"n": strconv.FormatFloat(float64(int(n*10+0.5))/10, 'f', -1, 64)})
}

// note writes a note such as F#4 by its name, without the octave.
func (w *Words) note(pitch string) (string, error) {
	name := strings.TrimRight(pitch, "0123456789-")
	if name == "" {
		return "", nil
	}
	if own := "note." + name; w.keys[own] {
		return w.find(own, nil, nil)
	}
	step, sign := name[:1], name[1:]
	if sign == "" {
		sign = "plain"
	}
	return w.find("note."+sign, nil, Args{"step": step})
}

func (w *Words) notes(pitches string) (string, error) {
	names, err := each(strings.Fields(pitches), w.note)
	return strings.Join(names, ", "), err
}

// notesInBars writes notes, each with the bar in which it stands first.
func (w *Words) notesInBars(pitches, bars string) (string, error) {
	var out []string
	where := strings.Split(bars, ",")
	for i, pitch := range strings.Split(pitches, ",") {
		name, err := w.note(pitch)
		if err != nil {
			return "", err
		}
		at, err := w.bars(where[min(i, len(where)-1)])
		if err != nil {
			return "", err
		}
		text, err := w.find("note.in-bar", nil, Args{"note": name, "bars": at})
		if err != nil {
			return "", err
		}
		out = append(out, text)
	}
	return strings.Join(out, ", "), nil
}

// key writes a key such as Eb major.
func (w *Words) key(key string) (string, error) {
	tonic, mode, _ := strings.Cut(key, " ")
	name, err := w.note(tonic)
	if err != nil {
		return "", err
	}
	if w.keys["key."+mode] {
		return w.find("key."+mode, nil, Args{"note": name})
	}
	return strings.TrimSpace(name + " " + mode), nil
}

// severalKeys lists keys, given as G major,D major.
func (w *Words) severalKeys(keys string) (string, error) {
	names, err := each(strings.Split(keys, ","), w.key)
	return w.List(names, len(names)), err
}

// each names several things.
func each(of []string, name func(string) (string, error)) (names []string, err error) {
	for _, one := range of {
		said, err := name(one)
		if err != nil {
			return nil, err
		}
		names = append(names, said)
	}
	return names, nil
}

// A parsing parses messages once: what they call is bound to one reader.
type parsing struct{ functions template.FuncMap }

// Cacheable reports that a parsed message may be kept.
func (r *parsing) Cacheable() bool { return true }

// Parse parses a message.
func (r *parsing) Parse(src, left, right string) (i18ntemplate.ParsedTemplate, error) {
	text := i18ntemplate.TextParser{Funcs: r.functions, Option: "missingkey=zero"}
	return text.Parse(src, left, right)
}
