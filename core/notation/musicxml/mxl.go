package musicxml

import (
	"archive/zip"
	"bytes"
	"encoding/xml"
	"fmt"
	"io"

	"patientladder/core/score"
)

// Text returns the XML text of a plain or compressed document.
func Text(data []byte) ([]byte, error) {
	if bytes.HasPrefix(data, []byte("PK\x03\x04")) {
		return unpack(data)
	}
	return data, nil
}

// Compress packs a document as a compressed file: MusicXML 4.0, "Compressed .MXL
// files".
func Compress(document []byte) ([]byte, error) {
	var out bytes.Buffer
	z := zip.NewWriter(&out)
	for _, f := range []struct {
		name   string
		data   []byte
		method uint16
	}{
		{"mimetype", []byte("application/vnd.recordare.musicxml"), zip.Store},
		{"META-INF/container.xml", []byte(`<?xml version="1.0" encoding="UTF-8"?>
<container><rootfiles><rootfile full-path="score.musicxml" media-type="application/vnd.recordare.musicxml+xml"/></rootfiles></container>
`), zip.Deflate},
		{"score.musicxml", document, zip.Deflate},
	} {
		w, err := z.CreateHeader(&zip.FileHeader{Name: f.name, Method: f.method})
		if err == nil {
			_, err = w.Write(f.data)
		}
		if err != nil {
			return nil, fmt.Errorf("pack %s: %w", f.name, err)
		}
	}
	if err := z.Close(); err != nil {
		return nil, fmt.Errorf("pack the score: %w", err)
	}
	return out.Bytes(), nil
}

// unpack returns the score inside a compressed file, as its
// META-INF/container.xml names it.
func unpack(data []byte) ([]byte, error) {
	fail := func(format string, a ...any) ([]byte, error) {
		return nil, &score.SyntaxError{Msg: fmt.Sprintf(format, a...)}
	}
	z, err := zip.NewReader(bytes.NewReader(data), int64(len(data)))
	if err != nil {
		return fail("the compressed file is damaged: %v", err)
	}
	budget := int64(maxUnpacked)
	open := func(name string) ([]byte, error) {
		for _, f := range z.File {
			if f.Name != name {
				continue
			}
			in, err := f.Open()
			if err != nil {
				return fail("%s inside the compressed file cannot be opened: %v", name, err)
			}
			defer in.Close()
			b, err := io.ReadAll(io.LimitReader(in, budget+1))
			if err != nil {
				return fail("%s inside the compressed file is damaged: %v", name, err)
			}
			if budget -= int64(len(b)); budget < 0 {
				return fail("the compressed file unpacks to more than %d MB", maxUnpacked>>20)
			}
			return b, nil
		}
		return fail("the compressed file has no %s", name)
	}
	container, err := open("META-INF/container.xml")
	if err != nil {
		return nil, err
	}
	var c struct {
		Roots []struct {
			Path string `xml:"full-path,attr"`
		} `xml:"rootfiles>rootfile"`
	}
	if err := xml.Unmarshal(container, &c); err != nil || len(c.Roots) == 0 {
		return fail("META-INF/container.xml does not name a score")
	}
	return open(c.Roots[0].Path)
}
