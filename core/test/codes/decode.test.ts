import fc from "fast-check";
import {
  codeBytes,
  codeNumber,
  decodeReply,
  dm1Codes,
  emissionCodes,
  failureType,
  informationCodes,
  statusBits,
  statusOf,
  type ReportedCode,
  type Result,
} from "../../src/index.js";

const value = (r: Result<ReportedCode[]>) => {
  if (!r.ok) throw new Error(JSON.stringify(r.issues));
  return r.value;
};
const codes = (r: Result<ReportedCode[]>) => value(r).map((c) => c.code);
const why = (r: Result<unknown>) => (r.ok ? "ok" : r.issues[0]!.code);

describe("code numbering (SAE J2012 / ISO 15031-6; values from memory)", () => {
  test.each([
    [0x01, 0x33, "P0133"],
    [0xc1, 0x00, "U0100"],
    [0x92, 0x34, "B1234"],
    [0x00, 0x00, "P0000"],
    [0x44, 0x20, "C0420"],
    [0x1a, 0x41, "P1A41"],
    [0xff, 0xff, "U3FFF"],
  ])("%d %d is %s", (a, b, code) => {
    expect(codeNumber(a, b)).toBe(code);
    expect(codeBytes(code)).toEqual([a, b]);
  });
  test("numbers and bytes are one to one", () => {
    fc.assert(
      fc.property(fc.nat(0xffff), (n) => {
        expect(codeBytes(codeNumber(n >> 8, n & 255))).toEqual([n >> 8, n & 255]);
      }),
      { numRuns: 500, seed: 3 },
    );
    for (const bad of ["", "P013", "X0133", "P4133", "P01333", "SPN 1"]) expect(codeBytes(bad)).toBeUndefined();
  });
});

describe("status byte (ISO 14229-1; values from memory)", () => {
  test("every bit has its own meaning", () => {
    const names = [
      "testFailed",
      "failedThisCycle",
      "pending",
      "confirmed",
      "notCompletedSinceClear",
      "failedSinceClear",
      "notCompletedThisCycle",
      "lampRequested",
    ] as const;
    names.forEach((name, bit) =>
      expect(
        Object.entries(statusBits(1 << bit))
          .filter(([, on]) => on)
          .map(([n]) => n),
      ).toEqual([name]),
    );
  });
  test.each([
    [0x2f, "active"],
    [0x09, "active"],
    [0x08, "stored"],
    [0x28, "stored"],
    [0x04, "pending"],
    [0x20, "intermittent"],
    [0x50, "notRun"],
    [0x00, "absent"],
  ])("%d is %s", (byte, status) => expect(statusOf(byte)).toBe(status));
});

test("failure type bytes (ISO 14229-1 / SAE J2012-DA; values from memory)", () => {
  expect([0x11, 0x12, 0x13, 0x14, 0x15, 0x16, 0x17, 0x1f, 0x29, 0x31, 0x87].map(failureType)).toEqual([
    "shortToGround",
    "shortToBattery",
    "open",
    "groundOrOpen",
    "batteryOrOpen",
    "belowThreshold",
    "aboveThreshold",
    "intermittent",
    "invalid",
    "noSignal",
    "missingMessage",
  ]);
  expect(failureType(0x00)).toBeUndefined();
});

describe("emission services (SAE J1979 / ISO 15031-5; values from memory)", () => {
  test("without a count byte, filled up with zeros", () =>
    expect(value(emissionCodes("43 01 33 00 00 00 00"))).toEqual([{ code: "P0133", status: "stored" }]));
  test("on CAN with a count byte; pending and permanent", () => {
    expect(codes(emissionCodes("43 02 01 33 C1 00"))).toEqual(["P0133", "U0100"]);
    expect(value(emissionCodes("47 01 02 37"))).toEqual([{ code: "P0237", status: "pending" }]);
    expect(codes(emissionCodes("4A00"))).toEqual([]);
  });
  test("bad replies are named", () => {
    expect(why(emissionCodes("41 00 BE"))).toBe("reply.not-emission");
    expect(why(emissionCodes("43 03 01 33"))).toBe("reply.cut-short");
    expect(why(emissionCodes(""))).toBe("hex.empty");
    expect(why(emissionCodes("43 0G"))).toBe("hex.not-hex");
    expect(why(emissionCodes("43 0"))).toBe("hex.odd");
    expect(why(emissionCodes("43".repeat(20_000)))).toBe("hex.too-long");
  });
});

test("ReadDTCInformation 59 02: code, failure type, status", () => {
  expect(value(informationCodes("59 02 FF 02 37 16 2F 05 22 11 08"))).toEqual([
    { code: "P0237", status: "active", failureType: "belowThreshold", failureTypeByte: 0x16 },
    { code: "P0522", status: "stored", failureType: "shortToGround", failureTypeByte: 0x11 },
  ]);
  expect(why(informationCodes("59 02 FF 02 37 16"))).toBe("reply.cut-short");
  expect(why(informationCodes("59 01 FF"))).toBe("reply.not-information");
});

describe("DM1 (SAE J1939-73; values from memory)", () => {
  test("parameter of 19 bits, low byte first, failure mode, occurrences", () => {
    expect(value(dm1Codes("04 FF 6E 00 03 05 FF FF"))).toEqual([
      { code: "SPN 110 FMI 3", status: "active", occurrences: 5 },
    ]);
    expect(codes(dm1Codes("04FF 6E000305 64000401"))).toEqual(["SPN 110 FMI 3", "SPN 100 FMI 4"]);
  });
  test("any parameter and mode come back (property)", () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: (1 << 19) - 2 }), fc.nat(30), fc.nat(126), (spn, fmi, count) => {
        const bytes = [4, 0xff, spn & 255, (spn >> 8) & 255, ((spn >> 11) & 0xe0) | fmi, count];
        fc.pre(!(bytes[2] === 0xff && bytes[3] === 0xff && bytes[4] === 0xff));
        expect(value(dm1Codes(bytes.map((b) => b.toString(16).padStart(2, "0")).join(" ")))).toEqual([
          { code: `SPN ${spn} FMI ${fmi}`, status: "active", occurrences: count },
        ]);
      }),
      { numRuns: 300, seed: 5 },
    );
  });
  test("no fault, half a message, an older way of counting", () => {
    expect(codes(dm1Codes("00 FF 00 00 00 00 FF FF"))).toEqual([]);
    expect(why(dm1Codes("04 FF 6E 00"))).toBe("reply.cut-short");
    expect(why(dm1Codes("04 FF 6E 00 03 85"))).toBe("reply.old-conversion");
  });
});

test("a reply is told apart by its first byte", () => {
  expect(codes(decodeReply("43 01 01 33"))).toEqual(["P0133"]);
  expect(codes(decodeReply("59 02 FF 02 37 16 2F"))).toEqual(["P0237"]);
  expect(codes(decodeReply("04 FF 6E 00 03 05"))).toEqual(["SPN 110 FMI 3"]);
  expect(why(decodeReply("hello"))).toBe("hex.not-hex");
});
