import { z } from "zod";

// the page's policy forbids code made from text; this keeps the library from trying, which browsers report
z.config({ jitless: true });
