import { fireEvent, render, screen, within } from "@testing-library/react";
import { STORED_UNITS } from "@radicula/core";
import { Calculators } from "@/features/calculators/Calculators";
import { UnitsButton, UnitsOf } from "@/ui/Units";
import { readUnits, unitsCookie } from "@/ui/unitsCookie";

const inCookie = (name: string) =>
  readUnits(
    document.cookie
      .split("; ")
      .find((c) => c.startsWith(`${name}=`))
      ?.slice(name.length + 1),
  );
const shown = (person?: string) => (
  <UnitsOf person={person} initial={STORED_UNITS}>
    <UnitsButton />
    <Calculators />
  </UnitsOf>
);

test("units are chosen for each person, all at once or one by one, and the sums are in them", async () => {
  const { rerender } = render(shown());
  const air = () => screen.getByRole("region", { name: /Air pressure/ });
  expect(within(air()).getByText(/kPa/)).toBeInTheDocument();
  fireEvent.click(screen.getByRole("button", { name: "Units and language" }));
  const choices = await screen.findByRole("group", { name: "Units and language" });
  fireEvent.click(within(choices).getByText("US"));
  // 101.325 kPa at sea level (ISO 2533; value from memory) are 14.7 psi
  expect(within(air()).getByText("14.7 psi")).toBeInTheDocument();
  expect(inCookie(unitsCookie(undefined))).toEqual({
    temperature: "°F",
    pressure: "psi",
    section: "AWG",
    distance: "mi",
  });
  fireEvent.click(within(choices).getByText("bar"));
  expect(within(air()).getByText(/1.01 bar/)).toBeInTheDocument();
  expect(inCookie(unitsCookie(undefined)).distance).toBe("mi");
  // somebody else takes over on this page
  rerender(shown("p2"));
  expect(within(air()).getByText(/kPa/)).toBeInTheDocument();
});

test.each([undefined, "", "%", "{}", '{"temperature":"K"}', encodeURIComponent('{"temperature":"°F"}')])(
  "a cookie that says %p leaves the units as they are stored",
  (text) => {
    expect(readUnits(text)).toEqual(STORED_UNITS);
  },
);
