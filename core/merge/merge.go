// Package merge brings two changes of one thing together, made by two devices that both saw the
// thing as it was before either: what only one of them touched is taken over, and what both made
// different is named, for a person to decide. It is the three-way merge of text, by the fields of
// a thing instead of by lines.
package merge

import (
	"encoding/json"
	"errors"
	"slices"
)

// A Clash is a field that both changed, each to something else.
type Clash struct {
	Field  string          `json:"field"`
	Was    json.RawMessage `json:"was" doc:"before both changes; null for nothing"`
	Mine   json.RawMessage `json:"mine" doc:"as this change has it"`
	Theirs json.RawMessage `json:"theirs" doc:"as it is now"`
}

// Things merges mine and theirs, both made from was, by the fields that their JSON has. Fields
// that hold lists take every addition and every removal of both. In a clash the merged thing has
// mine. It fails only where a T is no JSON object.
func Things[T any](was, mine, theirs T) (merged T, clashes []Clash, err error) {
	a, err1 := fields(was)
	b, err2 := fields(mine)
	c, err3 := fields(theirs)
	if err := errors.Join(err1, err2, err3); err != nil {
		return merged, nil, err
	}
	out := map[string]json.RawMessage{}
	for _, name := range names(a, b, c) {
		value, clash := field(a[name], b[name], c[name])
		if value != nil {
			out[name] = value
		}
		if clash {
			clashes = append(clashes, Clash{name, told(a[name]), told(b[name]), told(c[name])})
		}
	}
	data, err := json.Marshal(out)
	if err != nil {
		return merged, nil, err
	}
	return merged, clashes, json.Unmarshal(data, &merged)
}

// Differ returns the fields in which two things differ, as a change that does not tell what it was
// made from has them.
func Differ[T any](mine, theirs T) ([]Clash, error) {
	b, err1 := fields(mine)
	c, err2 := fields(theirs)
	var out []Clash
	for _, name := range names(b, c) {
		if !same(b[name], c[name]) {
			out = append(out, Clash{name, told(nil), told(b[name]), told(c[name])})
		}
	}
	return out, errors.Join(err1, err2)
}

// Same reports whether two things read the same.
func Same[T any](a, b T) (bool, error) {
	in, err := Differ(a, b)
	return len(in) == 0, err
}

// fields are what a thing's JSON holds.
func fields(thing any) (out map[string]json.RawMessage, err error) {
	data, err := json.Marshal(thing)
	if err == nil {
		err = json.Unmarshal(data, &out)
	}
	return out, err
}

// same reports whether two values of a field are the same; nothing is the same however it is written.
func same(a, b json.RawMessage) bool {
	nothing := func(v json.RawMessage) bool { return v == nil || string(v) == "null" || string(v) == "[]" }
	return string(a) == string(b) || nothing(a) && nothing(b)
}

func told(v json.RawMessage) json.RawMessage {
	if v == nil {
		return json.RawMessage("null")
	}
	return v
}

// names are the fields of all sides, in order.
func names(sides ...map[string]json.RawMessage) []string {
	var out []string
	for _, side := range sides {
		for name := range side {
			out = append(out, name)
		}
	}
	slices.Sort(out)
	return slices.Compact(out)
}

// field merges one field; nil is a field that is left out.
func field(was, mine, theirs json.RawMessage) (value json.RawMessage, clash bool) {
	switch {
	case same(mine, theirs), same(theirs, was):
		return mine, false
	case same(mine, was):
		return theirs, false
	}
	if value, ok := lists(was, mine, theirs); ok {
		return value, false
	}
	return mine, true
}

// lists merges lists, as they are after theirs: what mine took out goes, what it added comes
// after what it stands after there. False where a side is no list, an element stands twice, both
// changed one element, or both put what they had in another order.
func lists(was, mine, theirs json.RawMessage) (json.RawMessage, bool) {
	a, ok1 := elements(was)
	b, ok2 := elements(mine)
	c, ok3 := elements(theirs)
	if !ok1 || !ok2 || !ok3 {
		return nil, false
	}
	order := c
	if newOrder(a, b) {
		switch {
		case !newOrder(a, c):
			order = ordered(c, b)
		case newOrder(c, b): // each another one
			return nil, false
		}
	}
	var out []element
	for _, e := range order {
		old, had := find(a, e.name)
		now, has := find(b, e.name)
		switch {
		case had && !has && string(e.json) != string(old.json):
			return nil, false // mine took out what theirs changed
		case had && !has:
			continue
		case has:
			value, clash := field(old.json, now.json, e.json)
			if clash {
				return nil, false
			}
			e.json = value
		}
		out = append(out, e)
	}
	for i, e := range b {
		old, had := find(a, e.name)
		if _, there := find(out, e.name); there {
			continue
		}
		if had {
			if string(e.json) != string(old.json) {
				return nil, false // theirs took out what mine changed
			}
			continue
		}
		at := len(out)
		if i == 0 {
			at = 0
		} else if k := slices.IndexFunc(out, func(o element) bool { return o.name == b[i-1].name }); k >= 0 {
			at = k + 1
		}
		out = slices.Insert(out, at, e)
	}
	plain := make([]json.RawMessage, len(out))
	for i, e := range out {
		plain[i] = e.json
	}
	data, err := json.Marshal(plain)
	return data, err == nil
}

// An element of a list goes by a name: what its JSON calls it, or itself.
type element struct {
	name string
	json json.RawMessage
}

// called are the fields that name an element of a list, the first that is there.
var called = []string{"id", "rung", "key"}

func elements(list json.RawMessage) ([]element, bool) {
	var plain []json.RawMessage
	if list != nil && json.Unmarshal(list, &plain) != nil {
		return nil, false
	}
	out := make([]element, 0, len(plain))
	for _, v := range plain {
		e := element{string(v), v}
		var fields map[string]json.RawMessage
		if json.Unmarshal(v, &fields) == nil {
			for _, name := range called {
				if id, there := fields[name]; there {
					e.name = string(id)
					break
				}
			}
		}
		if _, twice := find(out, e.name); twice {
			return nil, false
		}
		out = append(out, e)
	}
	return out, true
}

func find(list []element, name string) (element, bool) {
	i := slices.IndexFunc(list, func(e element) bool { return e.name == name })
	if i < 0 {
		return element{}, false
	}
	return list[i], true
}

// newOrder reports whether what stands in both lists stands in another order.
func newOrder(was, now []element) bool {
	last := -1
	for _, e := range now {
		i := slices.IndexFunc(was, func(o element) bool { return o.name == e.name })
		if i < 0 {
			continue
		}
		if i < last {
			return true
		}
		last = i
	}
	return false
}

// ordered puts what stands in both lists in the order of the second, where the first has them.
func ordered(list, as []element) []element {
	var both []element
	for _, e := range as {
		if o, there := find(list, e.name); there {
			both = append(both, o)
		}
	}
	out, next := slices.Clone(list), 0
	for i, e := range out {
		if _, there := find(as, e.name); there {
			out[i], next = both[next], next+1
		}
	}
	return out
}
