export { BankChoice } from "./BankChoice";
export { BankPage } from "./BankPage";
