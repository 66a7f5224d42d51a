package roster_test

import (
	"context"
	"testing"

	"patientladder/store/storetest"
)

func TestMain(m *testing.M) { storetest.Main(m) }

var ctx = context.Background()
