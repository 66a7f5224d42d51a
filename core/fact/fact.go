// Package fact holds the kinds of facts: what a teacher, a family or the program
// may say happened.
//
// A fact is one recorded event of one student, never changed; another fact may
// take it back. Its body is one of a closed set of types, each with exactly its own
// fields; the field tags hold their names, bounds and vocabulary, and what they
// refer to (check.go). A stored body carries the version of its form; older forms
// are lifted when they are read (first.go), never rewritten.
//
// What a fact does to a standing is for package ladder to say.
package fact

import (
	"encoding/json"
	"fmt"
	"reflect"
	"strings"
	"time"

	"patientladder/core/calendar"
)

// A Kind names a type of body in the log and on the wire.
type Kind string

// A Body is what a fact tells: one of the types in kinds.go.
type Body interface{ Kind() Kind }

// An Author is who told a fact. It is set where the fact comes in, never by who
// sends it.
type Author string

// The authors.
const (
	Teacher Author = "teacher"
	Family  Author = "family"
	Program Author = "program"
)

// A Fact is one recorded event of one student.
type Fact struct {
	ID      string    `json:"id" minLength:"26" maxLength:"26" doc:"made by the client: a ULID"`
	Student string    `json:"student" minLength:"26" maxLength:"26"`
	At      time.Time `json:"at" doc:"when it happened, by the client's clock"`
	By      Author    `json:"by,omitempty" enum:"teacher,family,program" doc:"who told it; set by the server"`
	Body    Body      `json:"body"`
}

// Bodies are what to tell next, as a view offers it: each becomes a fact with an id
// and a time of its own.
type Bodies []Body

// MarshalJSON writes them with their kinds, an empty list for none.
func (l Bodies) MarshalJSON() ([]byte, error) {
	out := make([]json.RawMessage, len(l))
	for i, b := range l {
		raw, err := Encode(b)
		if err != nil {
			return nil, err
		}
		out[i] = raw
	}
	return json.Marshal(out)
}

// UnmarshalJSON reads them by their kinds.
func (l *Bodies) UnmarshalJSON(raw []byte) error {
	var list []json.RawMessage
	if err := json.Unmarshal(raw, &list); err != nil {
		return err
	}
	*l = make(Bodies, len(list))
	for i, one := range list {
		b, err := Decode(one)
		if err != nil {
			return err
		}
		(*l)[i] = b
	}
	return nil
}

// An Act is something that a person may do next, as a view offers it.
type Act struct {
	Do   string `json:"do" doc:"what it is, by its code"`
	Key  string `json:"key" doc:"of the keyboard; empty for none"`
	Tell Bodies `json:"tell"`
}

// Do makes an act.
func Do(code, key string, tell ...Body) Act { return Act{code, key, tell} }

// Day returns the day of a fact in its own zone.
func (f Fact) Day() calendar.Date { return calendar.On(f.At) }

// Kind returns the kind of the fact's body; empty for none.
func (f Fact) Kind() Kind {
	if f.Body == nil {
		return ""
	}
	return f.Body.Kind()
}

// UnmarshalJSON reads a fact in the form of the wire.
func (f *Fact) UnmarshalJSON(raw []byte) error {
	type head Fact // without its methods
	var wire struct {
		head
		Body json.RawMessage `json:"body"`
	}
	if err := json.Unmarshal(raw, &wire); err != nil {
		return err
	}
	body, err := Decode(wire.Body)
	if err != nil {
		return err
	}
	*f = Fact(wire.head)
	f.Body = body
	return nil
}

// MarshalJSON writes a fact in the form of the wire.
func (f Fact) MarshalJSON() ([]byte, error) {
	type head Fact
	body, err := Encode(f.Body)
	if err != nil {
		return nil, err
	}
	return json.Marshal(struct {
		head
		Body json.RawMessage `json:"body"`
	}{head(f), body})
}

// Encode writes a body with its kind.
func Encode(b Body) ([]byte, error) {
	if b == nil {
		return nil, fmt.Errorf("a fact without a body")
	}
	raw, err := json.Marshal(b)
	if err != nil {
		return nil, err
	}
	out := fmt.Appendf(nil, `{"kind":%q`, b.Kind())
	if fields := raw[1 : len(raw)-1]; len(fields) > 0 {
		out = append(append(out, ','), fields...)
	}
	return append(out, '}'), nil
}

// Decode reads a body by its kind.
func Decode(raw []byte) (Body, error) {
	var k struct {
		Kind Kind `json:"kind"`
	}
	if err := json.Unmarshal(raw, &k); err != nil {
		return nil, err
	}
	return decode(k.Kind, raw)
}

func decode(k Kind, raw []byte) (Body, error) {
	e, known := registry[k]
	if !known {
		return nil, fmt.Errorf("%q is not a kind of fact", k)
	}
	return e.decode(raw)
}

// Version is the form in which bodies are written now.
const Version = 2

// Lift reads a stored body of any version.
func Lift(k Kind, version int, raw []byte) (Body, error) {
	switch version {
	case 1:
		return liftFirst(raw)
	case Version:
		return decode(k, raw)
	}
	return nil, fmt.Errorf("a fact of the form %d; this program knows forms up to %d", version, Version)
}

// Types lists the types of bodies by kind, in the order of the registry: what a
// description of the API is made from.
func Types() []reflect.Type {
	out := make([]reflect.Type, len(kinds))
	for i, e := range kinds {
		out[i] = e.typ
	}
	return out
}

// Words writes a kind as it is said: "lesson moved".
func (k Kind) Words() string { return strings.ReplaceAll(string(k), "_", " ") }
