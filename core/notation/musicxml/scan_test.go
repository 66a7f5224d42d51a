package musicxml

import (
	"bytes"
	"encoding/xml"
	"errors"
	"fmt"
	"io"
	"math/rand/v2"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// told writes a text's elements one a line: name, attributes, own text, end.
func told(text []byte) (string, error) {
	var out strings.Builder
	if _, err := check(text); err != nil {
		return "", err
	}
	d := newDocument(text)
	var tell func(e element)
	tell = func(e element) {
		n := d.nodes[e.i]
		fmt.Fprintf(&out, "%s%v%q\n", n.name, d.attrs[n.attrs:n.after], n.text)
		for c := e.first(); c.here(); c = c.next() {
			tell(c)
		}
		out.WriteString("end\n")
	}
	e, _, err := d.enter()
	if err == nil {
		err = d.fill()
	}
	if err != nil {
		return "", err
	}
	tell(e)
	if _, _, err := d.token(); !errors.Is(err, io.EOF) {
		return "", fmt.Errorf("more after the end: %w", err)
	}
	return out.String(), nil
}

// toldByLibrary is the same by encoding/xml.
func toldByLibrary(text []byte) (string, error) {
	type node struct {
		head, text string
		kids       []*node
	}
	root := &node{}
	open := []*node{root}
	d := xml.NewDecoder(bytes.NewReader(text))
	run := "" // of text up to the next tag
	for {
		tok, err := d.Token()
		if errors.Is(err, io.EOF) {
			break
		}
		if err != nil {
			return "", err
		}
		top := open[len(open)-1]
		if more, isText := tok.(xml.CharData); isText {
			run += string(more)
			continue
		}
		switch tok.(type) {
		case xml.StartElement, xml.EndElement:
			if !blank(run) {
				top.text += run
			}
			run = ""
		}
		switch t := tok.(type) {
		case xml.StartElement:
			attrs := []attribute{}
			for _, a := range t.Attr {
				attrs = append(attrs, attribute{a.Name.Local, a.Value})
			}
			n := &node{head: fmt.Sprintf("%s%v", t.Name.Local, attrs)}
			top.kids, open = append(top.kids, n), append(open, n)
		case xml.EndElement:
			open = open[:len(open)-1]
		}
	}
	if len(root.kids) == 0 {
		return "", io.EOF
	}
	var out strings.Builder
	var tell func(n *node)
	tell = func(n *node) {
		fmt.Fprintf(&out, "%s%q\n", n.head, n.text)
		for _, k := range n.kids {
			tell(k)
		}
		out.WriteString("end\n")
	}
	for _, n := range root.kids {
		tell(n)
	}
	return out.String(), nil
}

// Reading elements against Go's encoding/xml: whatever that reads, sound or
// damaged behind its declaration, is read alike or refused; what it refuses is
// refused.
func TestElementsAgainstTheStandardLibrary(t *testing.T) {
	texts := map[string]string{
		"attributes in either quotes": `<a b="1 &amp; 2" c='"'><d e = "x" /></a>`,
		"text around children":        "<a> one <b/>two<!-- not this -->three<![CDATA[ <four> ]]></a>",
		"numbered characters":         "<a>&#233;&#xE9;&lt;&quot;</a>",
		"a declaration and a doctype": "<?xml version=\"1.0\" encoding=\"UTF-8\"?>\n<!DOCTYPE a PUBLIC \"-//x//y\" \"z.dtd\" [<!ELEMENT a (b)>]>\n<a/>",
		"prefixes":                    `<x:a xlink:href="u"><x:b/></x:a>`,
		"wrong end":                   "<a><b></a></b>",
		"unknown entity":              "<a>&nbsp;</a>",
		"cut off":                     "<a><b>",
		"no quotes":                   "<a b=1/>",
		"nothing":                     "",
	}
	for name, text := range texts {
		want, wrong := toldByLibrary([]byte(text))
		got, err := told([]byte(text))
		assert.Equal(t, wrong == nil, err == nil, "%s: %v, %v", name, wrong, err)
		assert.Equal(t, want, got, name)
	}
	rng := rand.New(rand.NewPCG(3, 9))
	good := file(t)
	same := 0
	for range 4000 {
		text := bytes.Clone(good[:400+rng.IntN(len(good)-400)])
		if rng.IntN(3) > 0 {
			text = bytes.Clone(good)
		}
		body := bytes.Index(text, []byte("<score-partwise"))
		for range 1 + rng.IntN(3) {
			at := body + rng.IntN(len(text)-body)
			if rng.IntN(2) == 0 {
				text[at] = "<>&;/\"'= ab-![]?\x80\x00"[rng.IntN(18)]
			} else {
				text = append(text[:at], text[min(at+1+rng.IntN(4), len(text)):]...)
			}
		}
		want, wrong := toldByLibrary(text)
		got, err := told(text)
		if err == nil && wrong == nil {
			require.Equal(t, want, got)
			same++
		}
		if err == nil {
			require.NoError(t, wrong, "read here and refused there:\n%s", text)
		}
	}
	assert.Greater(t, same, 100, "some damage leaves a document that both read")
}

func TestDocumentsThatAreTooMuch(t *testing.T) {
	_, err := told([]byte(strings.Repeat("<a>", maxDepth+1)))
	assert.ErrorContains(t, err, "deep")
	_, err = told([]byte("<a>" + strings.Repeat("<b/>", maxNodes) + "</a>"))
	assert.ErrorContains(t, err, "more than")
}
