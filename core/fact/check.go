package fact

import (
	"fmt"
	"math"
	"reflect"
	"regexp"
	"slices"
	"strconv"
	"strings"
	"time"
	"unicode/utf8"

	"patientladder/core/calendar"
)

// A field is one field of a body and what its tags ask of it:
//
//	json       its name; without omitempty it must be there
//	enum       the words it may be
//	maxLength  of a text, in bytes; maxItems of a list
//	minimum    of a number; maximum likewise
//	pattern    that a text matches
//	when       where a day lies beside the fact's own: past, near or ahead
//	ref        what it refers to
type field struct {
	at       int
	name     string
	optional bool
	enum     []string
	longest  int
	items    int
	min, max float64
	bounded  bool
	pattern  *regexp.Regexp
	when     string
	ref      string
}

var dateType = reflect.TypeFor[calendar.Date]()

func fieldsOf(t reflect.Type) []field {
	var out []field
	for i := range t.NumField() {
		tag := t.Field(i).Tag
		name, options, _ := strings.Cut(tag.Get("json"), ",")
		f := field{at: i, name: name, optional: options == "omitempty", when: tag.Get("when"), ref: tag.Get("ref")}
		if words := tag.Get("enum"); words != "" {
			f.enum = strings.Split(words, ",")
		}
		f.longest, _ = strconv.Atoi(tag.Get("maxLength"))
		f.items, _ = strconv.Atoi(tag.Get("maxItems"))
		if least := tag.Get("minimum"); least != "" {
			f.bounded = true
			f.min, _ = strconv.ParseFloat(least, 64)
			f.max, _ = strconv.ParseFloat(tag.Get("maximum"), 64)
		}
		if p := tag.Get("pattern"); p != "" {
			f.pattern = regexp.MustCompile(p)
		}
		out = append(out, f)
	}
	return out
}

// Bounds of the days that a fact may speak of, beside the day on which it happened.
var spans = map[string]struct{ back, on int }{
	"past":  {400, 1}, // a device whose clock is a day ahead
	"near":  {400, 400},
	"ahead": {60, 5 * 366},
}

// oldest is how many years before the studio's clock a fact may lie, and late how
// far ahead of it: room for a device whose clock is wrong, not for a slip of the
// keyboard.
const (
	oldest = 30
	late   = 24 * time.Hour
)

// Check says what is wrong with the form of a fact, and with its times beside the
// studio's clock; whether what it refers to is there is for package door to say.
func (f Fact) Check(now time.Time) error {
	switch {
	case !isULID(f.ID):
		return fmt.Errorf("the fact's id %q is not a ULID of 26 characters", f.ID)
	case f.At.IsZero():
		return fmt.Errorf("the fact has no time")
	case f.At.After(now.Add(late)):
		return fmt.Errorf("it lies in the future (%s); check this device's clock", f.At.Format(time.RFC3339))
	case f.At.Before(now.AddDate(-oldest, 0, 0)) || !calendar.InBounds(f.At):
		return fmt.Errorf("it lies too far back (%s); check this device's clock", f.At.Format(time.RFC3339))
	case f.Body == nil:
		return fmt.Errorf("it has no body")
	}
	return f.check()
}

// isULID reports whether an id is one: Crockford's base 32 in capitals.
func isULID(id string) bool {
	return len(id) == 26 && id[0] <= '7' && strings.Trim(id, "0123456789ABCDEFGHJKMNPQRSTVWXYZ") == ""
}

func (f Fact) check() error {
	e, known := registry[f.Body.Kind()]
	if !known {
		return fmt.Errorf("%q is not a kind of fact", f.Body.Kind())
	}
	v := reflect.ValueOf(f.Body)
	for _, fl := range e.fields {
		if err := fl.check(v.Field(fl.at), f.Day()); err != nil {
			return fmt.Errorf("%s: %s %w", e.kind.Words(), fl.name, err)
		}
	}
	if own, more := f.Body.(interface{ check() error }); more {
		if err := own.check(); err != nil {
			return fmt.Errorf("%s: %w", e.kind.Words(), err)
		}
	}
	return nil
}

func (fl field) check(v reflect.Value, day calendar.Date) error {
	switch v.Kind() {
	case reflect.String:
		return fl.checkText(v.String(), v.Type() == dateType, day)
	case reflect.Int:
		return fl.checkNumber(float64(v.Int()))
	case reflect.Float64:
		return fl.checkNumber(v.Float())
	case reflect.Slice:
		if v.Len() > fl.items {
			return fmt.Errorf("holds more than %d", fl.items)
		}
	}
	return nil
}

func (fl field) checkText(s string, date bool, day calendar.Date) error {
	switch {
	case strings.TrimSpace(s) == "" && fl.optional && s == "":
		return nil
	case strings.TrimSpace(s) == "":
		return fmt.Errorf("is missing")
	case fl.enum != nil && !slices.Contains(fl.enum, s):
		return fmt.Errorf("%q is not one of %s", s, strings.Join(fl.enum, ", "))
	case fl.longest > 0 && len(s) > fl.longest:
		return fmt.Errorf("is longer than %d characters", fl.longest)
	case !utf8.ValidString(s) || strings.ContainsFunc(s, control):
		return fmt.Errorf("holds characters that cannot be written")
	case fl.pattern != nil && !fl.pattern.MatchString(s):
		return fmt.Errorf("%q is not a time of day such as 16:00", s)
	case date:
		d, err := calendar.ParseDate(s)
		if err != nil {
			return err
		}
		if span := spans[fl.when]; d.Sub(day) < -span.back || d.Sub(day) > span.on {
			return fmt.Errorf("%s lies too far from %s, when it was told", d, day)
		}
	}
	return nil
}

// control reports whether a character steers instead of being written; lines may
// end.
func control(r rune) bool {
	return r < ' ' && r != '\n' && r != '\t' || r == 0x7f || r == '\u2028' || r == '\u2029'
}

func (fl field) checkNumber(n float64) error {
	if fl.bounded && !(n >= fl.min && n <= fl.max) {
		return fmt.Errorf("%v is not from %v to %v", n, fl.min, fl.max)
	}
	return nil
}

func (d DaysSet) check() error {
	for i, day := range d.Weekdays {
		if day < 0 || day > 6 || slices.Contains(d.Weekdays[:i], day) {
			return fmt.Errorf("weekdays are from 0 for Sunday to 6, each once")
		}
	}
	return nil
}

func (p Paused) check() error {
	if p.Until != "" && p.Until < p.From {
		return fmt.Errorf("it ends before it begins")
	}
	return nil
}

func (p PlayedIn) check() error {
	for _, f := range p.Fingers {
		if strings.TrimSpace(f.Finger) == "" || len(f.Finger) > 4 || f.Hand != "" && f.Hand != "left" && f.Hand != "right" || math.Abs(f.Late) > 60000 || math.Abs(f.Heft) > 127 {
			return fmt.Errorf("the figures of a finger are out of bounds")
		}
	}
	return nil
}

func (e Echoed) check() error {
	if e.Right > e.Asked {
		return fmt.Errorf("more are right than were asked")
	}
	return nil
}

func (m SeatMeasured) check() error {
	if m == (SeatMeasured{}) {
		return fmt.Errorf("nothing is measured")
	}
	return nil
}

// A Ref is something that a body refers to.
type Ref struct {
	To string // rung, spot, point, item, exercise, book, skill, fault, probe, activity, school, question, document or fact
	ID string
}

// Refs lists what a body refers to.
func Refs(b Body) []Ref {
	var out []Ref
	v := reflect.ValueOf(b)
	for _, fl := range registry[b.Kind()].fields {
		if fl.ref == "" {
			continue
		}
		if id := v.Field(fl.at).String(); id != "" {
			out = append(out, Ref{fl.ref, id})
		}
	}
	return out
}

// Referring returns a body that refers to other things, each as to says; false where to knows
// none for one of them.
func Referring(b Body, to func(Ref) (string, bool)) (Body, bool) {
	v := reflect.New(reflect.TypeOf(b)).Elem()
	v.Set(reflect.ValueOf(b))
	for _, fl := range registry[b.Kind()].fields {
		at := v.Field(fl.at)
		if fl.ref == "" || at.String() == "" {
			continue
		}
		id, known := to(Ref{fl.ref, at.String()})
		if !known {
			return b, false
		}
		at.SetString(id)
	}
	return v.Interface().(Body), true
}
