package server

import (
	"context"
	"io"

	"github.com/danielgtaylor/huma/v2"
	"github.com/go-json-experiment/json"
	"github.com/go-json-experiment/json/jsontext"
	jsonv1 "github.com/go-json-experiment/json/v1"

	"patientladder/core/reason"
	"patientladder/studio"
	"patientladder/words"
)

// A spoken answer goes out in the words of its reader.
type spoken struct {
	body any
	in   *words.Words
}

// A view of a home says itself in which language it is read; one that does not, is read by who asks.
type read interface{ ReadIn() string }

// speak gives an answer the words of who asked.
func speak(ctx huma.Context, _ string, body any) (any, error) {
	by := reader(ctx.Context())
	if home, is := body.(read); is && home.ReadIn() != "" {
		by = words.ReaderOf(home.ReadIn())
	}
	if by.Language == "" { // nobody has signed in: as the browser likes it
		by.Language = words.Preferred(ctx.Header("Accept-Language"))
		return spoken{body, words.In(by)}, nil
	}
	in := words.In(by)
	ctx.SetHeader("Content-Language", in.Language())
	return spoken{body, in}, nil
}

// A told reason is one with its sentence.
type told struct {
	Code string            `json:"code"`
	Args map[string]string `json:"args"`
	Says string            `json:"says"`
}

// jsonFormat writes answers as JSON, each reason in them with its sentence and each label as its
// text. Everything else is
// written as encoding/json does it.
func jsonFormat() huma.Format {
	return huma.Format{
		Marshal: func(w io.Writer, v any) error {
			answer, is := v.(spoken)
			if !is {
				return huma.DefaultJSONFormat.Marshal(w, v)
			}
			sentence := json.MarshalToFunc(func(to *jsontext.Encoder, r reason.Reason) error {
				return json.MarshalEncode(to, told{r.Code, r.Args, answer.in.Reason(r)})
			})
			label := json.MarshalToFunc(func(to *jsontext.Encoder, l reason.Label) error {
				return to.WriteToken(jsontext.String(answer.in.Label(l)))
			})
			return json.MarshalWrite(w, answer.body, jsonv1.DefaultOptionsV1(), json.WithMarshalers(json.JoinMarshalers(sentence, label)))
		},
		Unmarshal: huma.DefaultJSONFormat.Unmarshal,
	}
}

// unitsHeader says in which unit a device shows lengths: in, or cm.
const unitsHeader = "Ladder-Units"

// reader is how who asks reads; empty where nobody is signed in.
func reader(ctx context.Context) words.Reader {
	who, _ := ctx.Value(whoKey).(studio.Who)
	return who.Reader
}
