import type ExcelJSModule from 'exceljs';
import type PDFDocumentClass from 'pdfkit';
import { createRequire } from 'node:module';

/** The programs that write documents, read from the disk when one is asked for that needs them: both together take most of a second. */
const require = createRequire(import.meta.url);
export const pdfKit = () => require('pdfkit') as typeof PDFDocumentClass;
export const excelJs = () => require('exceljs') as typeof ExcelJSModule;
