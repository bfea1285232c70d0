export { Account } from "./Account";
export { Join } from "./Join";
export { NewPassword } from "./NewPassword";
export { PostBox } from "./PostBox";
export { SignIn } from "./SignIn";
