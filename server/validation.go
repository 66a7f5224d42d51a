package server

import (
	"net/http"
	"strings"

	"github.com/danielgtaylor/huma/v2"
)

// A request that does not fit its description is refused by the framework
// with a list of fields; the sentence for the person is made from that list.
func init() {
	plain := huma.NewError
	huma.NewError = func(status int, msg string, errs ...error) huma.StatusError {
		if status == http.StatusUnprocessableEntity && msg == "validation failed" && len(errs) > 0 {
			var parts []string
			older := false // a change as pages sent it before it named what it was made from
			for _, err := range errs {
				text := err.Error()
				if d, ok := err.(huma.ErrorDetailer); ok {
					detail := d.ErrorDetail()
					text = strings.TrimPrefix(detail.Location, "body.") + ": " + detail.Message
					older = older || detail.Location == "body" && strings.Contains(detail.Message, "required property now ")
				}
				parts = append(parts, text)
			}
			msg = "Not everything that was sent fits: " + strings.Join(parts, "; ") + "."
			if older {
				msg = "This page is older than the program, so nothing was saved. Reload the page and make the change again."
			}
		}
		if status == http.StatusBadRequest && msg == "validation failed" {
			msg = "What was sent is cut short, or is no JSON, so nothing was kept. Send it again."
		}
		if status == http.StatusBadRequest && msg == "request body is required" {
			msg = "Nothing was sent: the file or the form is empty."
		}
		return plain(status, msg, errs...)
	}
}
