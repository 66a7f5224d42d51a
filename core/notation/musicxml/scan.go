package musicxml

import (
	"bytes"
	"encoding/binary"
	"fmt"
	"io"
	"strconv"
	"strings"
	"unicode/utf8"
)

// A document is XML text being read. It gives elements as trees, one at a time,
// that share the text and one arena, so that a long score costs few allocations;
// encoding/xml takes five times as long over the same file, and the tests hold
// the two against each other. Names are without their prefix. Entities other than
// XML's own five and numbered characters are refused.
type document struct {
	src   string
	at    int      // how far it is read
	open  []string // names of the elements that are open
	shut  bool     // the element opened last has ended already: <a/>
	nodes []node   // of the tree that was read last
	attrs []attribute
}

type attribute struct{ name, value string }

// A node is an element of a tree; indices are into the arena, 0 for none.
type node struct {
	name         string
	text         string // spaces between its children are left out
	attrs, after int32  // its attributes are attrs[attrs:after]
	child, next  int32
}

// An element is a node of the tree that was read last; it is gone with the next.
type element struct {
	d *document
	i int32
}

const (
	maxDepth = 100     // of elements in one another
	maxNodes = 200_000 // in one child of a bar
)

// A malformed error says why a text is not XML.
type malformed struct{ msg string }

func (m *malformed) Error() string { return "not well-formed XML: " + m.msg }

func bad(format string, a ...any) error { return &malformed{fmt.Sprintf(format, a...)} }

// newDocument makes a document of a text whose characters are checked by check.
func newDocument(text []byte) *document { return &document{src: string(text)} }

// check says whether a text has only characters that XML knows, and where the
// first other one stands.
func check(text []byte) (at int, err error) {
	for i := 0; i < len(text); {
		if i+8 <= len(text) && !controls(binary.LittleEndian.Uint64(text[i:])) {
			i += 8
			continue
		}
		if c := text[i]; c < ' ' && c != '\n' && c != '\t' && c != '\r' {
			return i, bad("a control character")
		}
		i++
	}
	if !utf8.Valid(text) {
		return len(text) - len(bytes.ToValidUTF8(text, nil)), bad("the text is not UTF-8")
	}
	return 0, nil
}

// controls reports whether any of eight bytes is below the blank.
func controls(eight uint64) bool {
	const each = 0x0101010101010101
	return (eight-' '*each)&^eight&(0x80*each) != 0
}

// line returns the line, from 1, that the document is read up to.
func (d *document) line() int { return 1 + strings.Count(d.src[:d.at], "\n") }

// token reads on to the next start or end of an element and returns the text
// before it. It returns io.EOF where the text ends with no element open.
func (d *document) token() (text string, start bool, err error) {
	if d.shut {
		d.shut = false
		return "", false, d.pop(d.open[len(d.open)-1])
	}
	for {
		end, plain := d.until('<', d.at)
		if end == len(d.src) {
			d.at = end
			if len(d.open) > 0 {
				return "", false, io.ErrUnexpectedEOF
			}
			return "", false, io.EOF
		}
		if more := d.src[d.at:end]; more != "" {
			if !plain {
				var err error
				if more, err = unescape(more); err != nil {
					return "", false, err
				}
			}
			text = joinText(text, more)
		}
		d.at = end
		rest := d.src[d.at:]
		if len(rest) > 1 && rest[1] != '/' && rest[1] != '!' && rest[1] != '?' {
			return text, true, d.tag()
		}
		if top := len(d.open) - 1; top >= 0 { // the end of the innermost element, as it mostly is written
			if end := 2 + len(d.open[top]); end < len(rest) && rest[end] == '>' && rest[1] == '/' && rest[2:end] == d.open[top] {
				d.at += end + 1
				d.open = d.open[:top]
				return text, false, nil
			}
		}
		switch {
		case strings.HasPrefix(rest, "</"):
			name, i := d.name(d.at + 2)
			for i < len(d.src) && space(d.src[i]) {
				i++
			}
			if i == len(d.src) {
				d.at = i
				return "", false, io.ErrUnexpectedEOF
			}
			if d.src[i] != '>' {
				return "", false, bad("</%s does not end", name)
			}
			d.at = i + 1
			return text, false, d.pop(name)
		case strings.HasPrefix(rest, "<!--"):
			if err := d.past(4, "-->"); err != nil {
				return "", false, err
			}
		case strings.HasPrefix(rest, "<![CDATA["):
			from := d.at + 9
			if err := d.past(9, "]]>"); err != nil {
				return "", false, err
			}
			text = joinText(text, d.src[from:d.at-3])
		case strings.HasPrefix(rest, "<?"):
			from := d.at
			if err := d.past(2, "?>"); err != nil {
				return "", false, err
			}
			if err := checkEncoding(d.src[from:d.at]); err != nil {
				return "", false, err
			}
		case strings.HasPrefix(rest, "<!"):
			if err := d.directive(); err != nil {
				return "", false, err
			}
		default:
			return text, true, d.tag()
		}
	}
}

// joinText appends text to what stands before it; mostly nothing does.
func joinText(a, b string) string {
	if a == "" {
		return b
	}
	return a + b
}

// past moves past the next end mark, looked for from some bytes on.
func (d *document) past(from int, end string) error {
	i := strings.Index(d.src[d.at+from:], end)
	if i < 0 {
		d.at = len(d.src)
		return io.ErrUnexpectedEOF
	}
	d.at += from + i + len(end)
	return nil
}

// directive moves past <!DOCTYPE ...> with what stands in its brackets.
func (d *document) directive() error {
	depth, from := 0, d.at
	for i := d.at; i < len(d.src); i++ {
		switch d.src[i] {
		case '<':
			depth++
		case '>':
			if depth--; depth == 0 {
				d.at = i + 1
				if strings.Contains(d.src[from:d.at], "<!ENTITY") {
					return fmt.Errorf("the file defines XML entities; scores that do are not read")
				}
				return nil
			}
		case '"', '\'':
			end := strings.IndexByte(d.src[i+1:], d.src[i])
			if end < 0 {
				break
			}
			i += end + 1
		}
	}
	d.at = len(d.src)
	return io.ErrUnexpectedEOF
}

// checkEncoding refuses a declaration of a text encoding that is not read.
func checkEncoding(declaration string) error {
	if !strings.HasPrefix(declaration, "<?xml") {
		return nil
	}
	_, after, found := strings.Cut(declaration, "encoding")
	if !found {
		return nil
	}
	after = strings.TrimLeft(after, " \t\r\n=")
	if after == "" || after[0] != '"' && after[0] != '\'' {
		return nil
	}
	label, _, _ := strings.Cut(after[1:], after[:1])
	switch strings.ToLower(label) {
	case "utf-8", "utf-16", "us-ascii", "ascii": // UTF-16 is already turned into UTF-8
		return nil
	}
	return fmt.Errorf("the text encoding %q is not read; save the file as UTF-8", label)
}

func (d *document) pop(name string) error {
	if len(d.open) == 0 {
		return bad("</%s> ends nothing", name)
	}
	if top := d.open[len(d.open)-1]; top != name {
		return bad("<%s> ends with </%s>", top, name)
	}
	d.open = d.open[:len(d.open)-1]
	return nil
}

// tag reads a start tag; its attributes are the last of d.attrs.
func (d *document) tag() error {
	name, i := d.name(d.at + 1)
	if i == d.at+1 {
		return bad("a tag without a name")
	}
	if len(d.open) == maxDepth {
		return bad("elements stand more than %d deep", maxDepth)
	}
	d.open = append(d.open, name)
	for {
		for i < len(d.src) && space(d.src[i]) {
			i++
		}
		if i == len(d.src) {
			d.at = i
			return io.ErrUnexpectedEOF
		}
		switch d.src[i] {
		case '>':
			d.at = i + 1
			return nil
		case '/':
			if i+1 < len(d.src) && d.src[i+1] == '>' {
				d.at, d.shut = i+2, true
				return nil
			}
			return bad("a stray / in <%s>", name)
		}
		key, after := d.name(i)
		for i = after; i < len(d.src) && space(d.src[i]); i++ {
		}
		if key == "" || i == len(d.src) || d.src[i] != '=' {
			return bad("an attribute of <%s> without a value", name)
		}
		i++
		for i < len(d.src) && space(d.src[i]) {
			i++
		}
		if i == len(d.src) || d.src[i] != '"' && d.src[i] != '\'' {
			return bad("the attribute %s of <%s> without quotes", key, name)
		}
		end, plain := d.until(d.src[i], i+1)
		if end == len(d.src) {
			d.at = end
			return io.ErrUnexpectedEOF
		}
		value := d.src[i+1 : end]
		if strings.IndexByte(value, '<') >= 0 {
			return bad("a < in the attribute %s of <%s>", key, name)
		}
		if !plain {
			var err error
			if value, err = unescape(value); err != nil {
				return err
			}
		}
		d.attrs = append(d.attrs, attribute{key, value})
		i = end + 1
	}
}

// until returns where a byte stands next, the end of the text where it does not, and
// whether no & stands before it. What stands between two tags is mostly short.
func (d *document) until(c byte, from int) (at int, plain bool) {
	src, plain := d.src, true
	for at = from; at < len(src) && src[at] != c; at++ {
		if src[at] == '&' {
			plain = false
		}
	}
	return at, plain
}

// name reads a name from a place on and returns it without its prefix, and where
// it ends; the place itself where no name begins.
func (d *document) name(at int) (string, int) {
	from, i := at, at
	if i < len(d.src) && (d.src[i] == '-' || d.src[i] == '.' || d.src[i] >= '0' && d.src[i] <= '9') {
		return "", at
	}
	for ; i < len(d.src) && nameByte[d.src[i]]; i++ {
		if d.src[i] == ':' && from == at {
			from = i + 1
		}
	}
	return d.src[from:i], i
}

// nameByte says which bytes a name may hold; letters of other alphabets are
// taken as they come.
var nameByte = func() (is [256]bool) {
	for c := range is {
		is[c] = c >= 'a' && c <= 'z' || c >= 'A' && c <= 'Z' || c >= '0' && c <= '9' || strings.ContainsRune("-_.:", rune(c)) || c >= 0x80
	}
	return is
}()

func blank(s string) bool {
	for i := range len(s) {
		if !space(s[i]) {
			return false
		}
	}
	return true
}

func space(c byte) bool { return c == ' ' || c == '\n' || c == '\t' || c == '\r' }

// unescape writes out XML's own entities and numbered characters.
func unescape(s string) (string, error) {
	var out strings.Builder
	for {
		before, after, found := strings.Cut(s, "&")
		out.WriteString(before)
		if !found {
			return out.String(), nil
		}
		name, rest, ends := strings.Cut(after, ";")
		r, known := entities[name]
		if !known && ends {
			digits, base := strings.TrimPrefix(name, "#"), 10
			if strings.HasPrefix(digits, "x") {
				digits, base = digits[1:], 16
			}
			n, err := strconv.ParseUint(digits, base, 32)
			known = err == nil && name[0] == '#' && utf8.ValidRune(rune(n)) && (n >= ' ' || n == '\t' || n == '\n' || n == '\r')
			r = rune(n)
		}
		if !known || !ends {
			return "", bad("&%.20s is not a character", after)
		}
		out.WriteRune(r)
		s = rest
	}
}

var entities = map[string]rune{"amp": '&', "lt": '<', "gt": '>', "quot": '"', "apos": '\''}

// enter opens the next child of the innermost open element, without what stands
// in it; false where the element ends instead.
func (d *document) enter() (element, bool, error) {
	d.nodes, d.attrs = append(d.nodes[:0], node{}), d.attrs[:0]
	_, start, err := d.token()
	if err != nil || !start {
		return element{}, false, err
	}
	d.nodes = append(d.nodes, node{name: d.open[len(d.open)-1], after: int32(len(d.attrs))})
	return element{d, 1}, true, nil
}

// fill reads what stands in the element that was entered, up to its end.
func (d *document) fill() error {
	depth := len(d.open)
	var path, last [maxDepth + 2]int32 // by depth: the open element, and its child read last
	path[depth] = 1
	for {
		from := int32(len(d.attrs))
		text, start, err := d.token()
		if err != nil {
			return err
		}
		at := len(d.open)
		if start {
			at--
		} else {
			at++
		}
		if !blank(text) {
			in := &d.nodes[path[at]]
			in.text = joinText(in.text, text)
		}
		if !start {
			if at == depth {
				return nil
			}
			continue
		}
		if len(d.nodes) > maxNodes {
			return fmt.Errorf("one <%s> holds more than %d elements", d.nodes[1].name, maxNodes)
		}
		i := int32(len(d.nodes))
		d.nodes = append(d.nodes, node{name: d.open[at], attrs: from, after: int32(len(d.attrs))})
		if last[at] == 0 {
			d.nodes[path[at]].child = i
		} else {
			d.nodes[last[at]].next = i
		}
		last[at], path[at+1], last[at+1] = i, i, 0
	}
}

// pass moves past the element that was entered.
func (d *document) pass() error {
	for depth := len(d.open); len(d.open) >= depth; {
		d.attrs = d.attrs[:0]
		if _, _, err := d.token(); err != nil {
			return err
		}
	}
	return nil
}

func (e element) name() string { return e.d.nodes[e.i].name }

// text returns the element's own text without space around it.
func (e element) text() string { return strings.TrimSpace(e.d.nodes[e.i].text) }

func (e element) attr(name string) string {
	n := &e.d.nodes[e.i]
	for _, a := range e.d.attrs[n.attrs:n.after] {
		if a.name == name {
			return a.value
		}
	}
	return ""
}

// here reports whether there is such an element at all.
func (e element) here() bool { return e.i > 0 }

// first and next walk over an element's children.
func (e element) first() element { return element{e.d, e.d.nodes[e.i].child} }
func (e element) next() element  { return element{e.d, e.d.nodes[e.i].next} }

// child returns the last child of a name; one that is not here without.
func (e element) child(name string) element {
	out := element{e.d, 0}
	for c := e.first(); c.here(); c = c.next() {
		if c.name() == name {
			out = c
		}
	}
	return out
}

// number returns the text as a whole number; the nought where there is no text.
func (e element) number() (int, error) {
	text := e.text()
	if text == "" {
		return 0, nil
	}
	n, err := strconv.Atoi(text)
	if err != nil {
		return 0, fmt.Errorf("<%s> is %q; it must be a whole number", e.name(), text)
	}
	return n, nil
}
