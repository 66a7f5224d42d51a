package account

import (
	"context"
	"errors"
	"html"
	"time"

	"patientladder/store"
	"patientladder/studio"
)

// confirmHolds is how long a link in such a mail holds.
const confirmHolds = time.Hour

// askToConfirm mails a link that makes a studio; to an address that has an account, that it has one.
func askToConfirm(ctx context.Context, a *studio.App, in store.SignUp) error {
	_, err := a.Store.TeacherByEmail(ctx, in.Email)
	if err != nil && !errors.Is(err, store.ErrNotFound) {
		return studio.Failed(err, "account")
	}
	says, link, then := "Somebody, perhaps you, opened a studio in Patient Ladder with this address, which has an account already.", a.Base+"/sign-in", "Sign in, or ask for another password there"
	if err != nil {
		token := studio.Token()
		if err := a.Store.AddSignUp(ctx, token, in); err != nil {
			return studio.Failed(err, "account")
		}
		says, link, then = "Somebody, perhaps you, opened a studio in Patient Ladder with this address.", a.Base+"/confirm#"+token, "Confirm it within an hour"
	}
	const unless = "If it was not you, nothing has changed and there is nothing to do."
	return mailOwner(ctx, a, in.Email, "Your studio", says+"\n\n"+then+":\n"+link+"\n\n"+unless+"\n",
		"<p>"+says+"</p><p><a href=\""+html.EscapeString(link)+"\">"+then+"</a>.</p><p>"+unless+"</p>")
}

// Confirm makes the studio that a link was mailed for.
func Confirm(ctx context.Context, a *studio.App, token string) (studio.Who, error) {
	in, err := a.Store.TakeSignUp(ctx, token, confirmHolds)
	if errors.Is(err, store.ErrNotFound) {
		return studio.Who{}, &studio.Error{Kind: studio.Gone, Says: "This link was used or is older than an hour. Open the studio again.", Cause: err}
	}
	if err != nil {
		return studio.Who{}, studio.Failed(err, "account")
	}
	return found(ctx, a, in)
}

// found makes a studio and its teacher.
func found(ctx context.Context, a *studio.App, in store.SignUp) (studio.Who, error) {
	who := studio.Who{Teacher: studio.NewID(), Studio: studio.NewID()}
	err := a.Store.AddStudio(ctx, store.StudioRow{ID: who.Studio, Name: in.Studio, Zone: in.Zone, Language: in.Language, Calendar: in.Calendar, Demo: in.Demo, ClockShift: in.Shift},
		store.Teacher{ID: who.Teacher, Email: in.Email, Name: in.Name, Password: in.Password}, in.Invitation)
	if errors.Is(err, store.ErrNotFound) {
		return studio.Who{}, &studio.Error{Kind: studio.Gone, Says: "This invitation was used or is not one. Ask who runs this copy for another.", Cause: err}
	}
	if errors.Is(err, store.ErrTaken) {
		return studio.Who{}, &studio.Error{Kind: studio.Conflict, Says: "This email address has an account already; sign in instead.", Cause: err}
	}
	return who, studio.Failed(err, "studio")
}
