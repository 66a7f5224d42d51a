package reason

// A Label is a text that stands by itself: a name, a question, a hint. Answers carry it in the words
// of who reads them.
type Label struct {
	Key  string
	Args map[string]string
}

// Said is a label without arguments.
func Said(key string) Label { return Label{Key: key} }

// SaidOf is a label with pairs of argument name and value.
func SaidOf(key string, pairs ...string) Label { return Label{key, Of(key, pairs...).Args} }

// MarshalText writes a label by its key, where nobody reads it.
func (l Label) MarshalText() ([]byte, error) { return []byte(l.Key), nil }

// UnmarshalText reads a key.
func (l *Label) UnmarshalText(key []byte) error { *l = Label{Key: string(key)}; return nil }
