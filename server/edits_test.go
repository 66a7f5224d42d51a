package server_test

import (
	"encoding/json"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// A change names what it was made from. What another device changed in other fields stands; what both
// changed is refused with 412 and both versions; a change that names nothing, as an older page sends
// it, overwrites nothing.
func TestAChangeNamesWhatItWasMadeFrom(t *testing.T) {
	h := newHouse(t)
	c, emil := h.teacher(t, "edits@example.com")
	put := func(was, now string) (int, string) {
		if was != "" {
			was = `"was":` + was + `,`
		}
		return c.do("PUT", "/api/students/"+emil, "application/json", []byte(`{`+was+`"now":`+now+`}`))
	}
	person := func(first, family string) string {
		return `{"firstName":"` + first + `","familyName":"` + family + `","birthYear":2018,"birthMonth":3,"instrument":"cello"}`
	}
	_, text := c.get("/api/students/" + emil)
	var seen struct{ Person json.RawMessage }
	require.NoError(t, json.Unmarshal([]byte(text), &seen))
	status, text := put(string(seen.Person), person("Emil", "Castellano"))
	require.Equal(t, 204, status, text)

	status, text = put(person("Emil", "Castellano"), person("Emil", "Castello"))
	assert.Equal(t, 204, status, text)
	status, text = put(person("Emil", "Castellano"), person("Emile", "Castellano")) // a page that is older
	assert.Equal(t, 204, status, text)
	status, text = put(person("Emil", "Castellano"), person("Emil", "Castilla"))
	assert.Equal(t, 412, status)
	var refused struct {
		Detail string
		Clash  struct {
			Present, Merged struct{ FirstName, FamilyName string }
			Fields          []struct{ Field, Was, Mine, Theirs string }
		}
	}
	require.NoError(t, json.Unmarshal([]byte(text), &refused), text)
	assert.Contains(t, refused.Detail, "Another device has changed this too.")
	assert.Equal(t, "Emile Castello", refused.Clash.Present.FirstName+" "+refused.Clash.Present.FamilyName)
	assert.Equal(t, "Emile Castilla", refused.Clash.Merged.FirstName+" "+refused.Clash.Merged.FamilyName)
	assert.Equal(t, []struct{ Field, Was, Mine, Theirs string }{{"familyName", "Castellano", "Castilla", "Castello"}}, refused.Clash.Fields)

	status, _ = put("", person("Emil", "Castellano"))
	assert.Equal(t, 412, status, "without what it was made from")
	status, text = c.do("PUT", "/api/students/"+emil, "application/json", []byte(person("Emil", "Old Page")))
	assert.Equal(t, 422, status, "the form of the last release")
	assert.Contains(t, text, "Reload the page")
	_, text = c.get("/api/students/" + emil)
	assert.Contains(t, text, `"familyName":"Castello"`)
}
