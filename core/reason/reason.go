// Package reason gives recommendations their why: a code and its arguments,
// which a screen turns into a sentence.
package reason

// A Reason is why something is recommended or refused.
type Reason struct {
	Code string            `json:"code" doc:"which sentence"`
	Args map[string]string `json:"args" doc:"what stands in it"`
}

// Of builds a reason from a code and pairs of argument name and value.
func Of(code string, pairs ...string) Reason {
	args := map[string]string{}
	for i := 0; i+1 < len(pairs); i += 2 {
		args[pairs[i]] = pairs[i+1]
	}
	return Reason{code, args}
}
